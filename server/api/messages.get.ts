import { MessagesDto } from '../people/dto';
import { messagesFor } from '../people/notifications';
import { parseAs } from '../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { after } = await parseAs(MessagesDto, getQuery(event));
  return messagesFor(event.context.person.id, after);
});
