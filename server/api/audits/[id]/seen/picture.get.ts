import { sendPicture } from '../../../../platform/http/pictures';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { SeenPictureDto } from '../../../../audits/dto';
import { seenPicture } from '../../../../audits/seen';

/** A picture of a page, by the digest that the evidence names. */
export default defineEventHandler(async (event) => {
  const { sha256 } = await parseAs(SeenPictureDto, getQuery(event));
  return sendPicture(event, await seenPicture(idOf(event), sha256), 'image/webp');
});
