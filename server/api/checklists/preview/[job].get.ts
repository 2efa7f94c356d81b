import { previewOf } from '#server/audits';
import { idOf } from '#server/platform/http/route-parameters';

/** The preview while it runs, with what it has found so far. */
export default defineEventHandler((event) => previewOf(idOf(event, 'job')));
