import { launchStanding } from '../../../launch/standing';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => launchStanding(idOf(event)));
