import { DrawnDto, drawnDifference } from '#server/comparing';
import { sendPicture } from '#server/platform/http/pictures';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** Two pictures of a page laid over each other. */
export default defineEventHandler(async (event) => {
  const asked = await parseAs(DrawnDto, getQuery(event));
  return sendPicture(event, await drawnDifference(idOf(event), asked), 'image/webp');
});
