import { passwordLink } from '#server/people';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => passwordLink(idOf(event), event.context.person.name));
