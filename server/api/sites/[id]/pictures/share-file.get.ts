import { sendPicture } from '../../../../platform/http/pictures';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { ShareFileDto } from '../../../../pictures/dto';
import { shareFileOf } from '../../../../pictures/pictures';

/** The share picture as it would be. */
export default defineEventHandler(async (event) => {
  const settings = await parseAs(ShareFileDto, getQuery(event));
  return sendPicture(event, await shareFileOf(idOf(event), settings), `image/${settings.format}`);
});
