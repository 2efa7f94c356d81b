import { passwordLink } from '../../../people/people';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => passwordLink(idOf(event), event.context.person.name));
