import { textsOf } from '../../../../intended/texts';
import { idOf } from '../../../../platform/http/route-parameters';

export default defineEventHandler((event) => textsOf(idOf(event)));
