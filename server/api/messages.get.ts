import { MessagesDto, messagesFor } from '#server/people';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { after } = await parseAs(MessagesDto, getQuery(event));
  return messagesFor(event.context.person.id, after);
});
