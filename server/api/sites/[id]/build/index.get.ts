import { buildState } from '#server/builds';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => buildState(idOf(event)));
