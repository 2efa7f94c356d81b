import { ThumbDto, thumbOf } from '#server/pictures';
import { sendPicture } from '#server/platform/http/pictures';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** A small copy of a picture of the site. */
export default defineEventHandler(async (event) => {
  const { url, width } = await parseAs(ThumbDto, getQuery(event));
  return sendPicture(event, await thumbOf(idOf(event), url, width), 'image/webp');
});
