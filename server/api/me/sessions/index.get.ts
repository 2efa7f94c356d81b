import { sessionsOf } from '#server/people';

export default defineEventHandler(({ context }) => sessionsOf(context.person.id, context.session));
