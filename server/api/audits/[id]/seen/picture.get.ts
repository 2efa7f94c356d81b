import { SeenPictureDto, seenPicture } from '#server/audits';
import { sendPicture } from '#server/platform/http/pictures';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** A picture of a page, by the digest that the evidence names. */
export default defineEventHandler(async (event) => {
  const { sha256 } = await parseAs(SeenPictureDto, getQuery(event));
  return sendPicture(event, await seenPicture(idOf(event), sha256), 'image/webp');
});
