import { launchStanding } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => launchStanding(idOf(event)));
