import { idOf } from '../../platform/http/route-parameters';
import { siteDetail } from '../../sites/sites';

export default defineEventHandler((event) => siteDetail(idOf(event)));
