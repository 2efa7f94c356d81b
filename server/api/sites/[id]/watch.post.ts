import { beginWatch } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => beginWatch(idOf(event), event.context.person.name));
