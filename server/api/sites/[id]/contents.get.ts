import { idOf } from '../../../platform/http/route-parameters';
import { siteContents } from '../../../sites/contents';

export default defineEventHandler((event) => siteContents(idOf(event)));
