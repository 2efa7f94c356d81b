import { PreviewDto, previewOf } from '#server/pictures';
import { sendPicture } from '#server/platform/http/pictures';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** The picture as it was given, small enough for a screen. */
export default defineEventHandler(async (event) => {
  const { use } = await parseAs(PreviewDto, getQuery(event));
  return sendPicture(event, await previewOf(idOf(event), use), 'image/webp');
});
