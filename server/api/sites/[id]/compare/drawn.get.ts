import { DrawnDto } from '../../../../comparing/dto';
import { drawnDifference } from '../../../../comparing/picture-pairs';
import { sendPicture } from '../../../../platform/http/pictures';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

/** Two pictures of a page laid over each other. */
export default defineEventHandler(async (event) => {
  const asked = await parseAs(DrawnDto, getQuery(event));
  return sendPicture(event, await drawnDifference(idOf(event), asked), 'image/webp');
});
