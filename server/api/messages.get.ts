import { messagesFor } from '../services/notifications';

export default defineEventHandler((event) => messagesFor(event.context.person.id));
