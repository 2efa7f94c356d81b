import { beginWatch } from '../../../launch/watching';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => beginWatch(idOf(event), event.context.person.name));
