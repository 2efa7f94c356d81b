import { idOf } from '#server/platform/http/route-parameters';
import { clientContents } from '#server/reads/contents';

export default defineEventHandler((event) => clientContents(idOf(event)));
