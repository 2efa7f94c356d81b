import { sendPicture } from '../../platform/http/pictures';
import { logo } from '../../reports/template';

export default defineEventHandler(async (event) => {
  const { data, type } = await logo();
  return sendPicture(event, data, type);
});
