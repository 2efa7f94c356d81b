import { launchLogs } from '../../../launch/log';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => launchLogs(idOf(event)));
