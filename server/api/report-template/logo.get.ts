import { sendPicture } from '#server/platform/http/pictures';
import { logo } from '#server/reports';

export default defineEventHandler(async (event) => {
  const { data, type } = await logo();
  return sendPicture(event, data, type);
});
