import { recordsOf } from '../../../pages/records';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => recordsOf(idOf(event)));
