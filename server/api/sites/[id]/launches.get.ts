import { launchLogs } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => launchLogs(idOf(event)));
