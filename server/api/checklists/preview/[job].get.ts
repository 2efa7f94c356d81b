import { previewOf } from '../../../audits/reevaluating';
import { idOf } from '../../../platform/http/route-parameters';

/** The preview while it runs, with what it has found so far. */
export default defineEventHandler((event) => previewOf(idOf(event, 'job')));
