import { idOf } from '#server/platform/http/route-parameters';
import { siteDetail } from '#server/reads/site-detail';

export default defineEventHandler((event) => siteDetail(idOf(event)));
