import { sendPicture } from '../../../../platform/http/pictures';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { ThumbDto } from '../../../../pictures/dto';
import { thumbOf } from '../../../../pictures/found-pictures';

/** A small copy of a picture of the site. */
export default defineEventHandler(async (event) => {
  const { url, width } = await parseAs(ThumbDto, getQuery(event));
  return sendPicture(event, await thumbOf(idOf(event), url, width), 'image/webp');
});
