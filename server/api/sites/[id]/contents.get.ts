import { idOf } from '#server/platform/http/route-parameters';
import { siteContents } from '#server/reads/contents';

export default defineEventHandler((event) => siteContents(idOf(event)));
