import { idOf } from '../../../../platform/http/route-parameters';
import { picturesOf } from '../../../../pictures/pictures';

export default defineEventHandler((event) => picturesOf(idOf(event)));
