import { buildState } from '../../../../builds/builds';
import { idOf } from '../../../../platform/http/route-parameters';

export default defineEventHandler((event) => buildState(idOf(event)));
