import { ShareFileDto, shareFileOf } from '#server/pictures';
import { sendPicture } from '#server/platform/http/pictures';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** The share picture as it would be. */
export default defineEventHandler(async (event) => {
  const settings = await parseAs(ShareFileDto, getQuery(event));
  return sendPicture(event, await shareFileOf(idOf(event), settings), `image/${settings.format}`);
});
