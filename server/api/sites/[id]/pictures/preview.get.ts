import { sendPicture } from '../../../../platform/http/pictures';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { PreviewDto } from '../../../../pictures/dto';
import { previewOf } from '../../../../pictures/pictures';

/** The picture as it was given, small enough for a screen. */
export default defineEventHandler(async (event) => {
  const { use } = await parseAs(PreviewDto, getQuery(event));
  return sendPicture(event, await previewOf(idOf(event), use), 'image/webp');
});
