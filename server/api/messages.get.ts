import { messagesFor } from '../people/notifications';

export default defineEventHandler((event) => messagesFor(event.context.person.id));
