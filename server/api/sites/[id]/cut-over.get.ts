import { siteCutOver } from '../../../launch/cut-over';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => siteCutOver(idOf(event)));
