import { sessionsOf } from '../../../people/sessions';

export default defineEventHandler(({ context }) => sessionsOf(context.person.id, context.session));
