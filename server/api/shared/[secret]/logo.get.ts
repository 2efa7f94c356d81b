import { sendPicture } from '../../../platform/http/pictures';
import { guestOf } from '../../../reports/links';
import { logo } from '../../../reports/template';

export default defineEventHandler(async (event) => {
  await guestOf(event);
  const { data, type } = await logo();
  return sendPicture(event, data, type);
});
