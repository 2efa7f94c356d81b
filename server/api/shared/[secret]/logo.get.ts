import { sendPicture } from '#server/platform/http/pictures';
import { guestOf, logo } from '#server/reports';

export default defineEventHandler(async (event) => {
  await guestOf(event);
  const { data, type } = await logo();
  return sendPicture(event, data, type);
});
