import { sendPicture } from '../../../platform/http/pictures';
import { parseAs } from '../../../platform/http/validation';
import { SeenPictureDto } from '../../../audits/dto';
import { guestOf } from '../../../reports/links';
import { sharedPicture } from '../../../reports/shared';

export default defineEventHandler(async (event) => {
  const { sha256 } = await parseAs(SeenPictureDto, getQuery(event));
  return sendPicture(event, await sharedPicture(await guestOf(event), sha256), 'image/webp');
});
