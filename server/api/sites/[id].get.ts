import { idOf } from '../../services/route-parameters';
import { siteDetail } from '../../services/sites';

export default defineEventHandler((event) => siteDetail(idOf(event)));
