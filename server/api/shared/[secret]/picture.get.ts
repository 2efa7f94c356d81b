import { SeenPictureDto } from '#server/audits';
import { sendPicture } from '#server/platform/http/pictures';
import { parseAs } from '#server/platform/http/validation';
import { guestOf, sharedPicture } from '#server/reports';

export default defineEventHandler(async (event) => {
  const { sha256 } = await parseAs(SeenPictureDto, getQuery(event));
  return sendPicture(event, await sharedPicture(await guestOf(event), sha256), 'image/webp');
});
