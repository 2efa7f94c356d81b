import { readJson } from '../platform/http/body';
import { parseAs } from '../platform/http/validation';
import { UploadPicturesDto } from '../practice/dto';
import { uploadPictures } from '../practice/practice';

/** In the demo: what somebody would upload at the host. */
export default defineEventHandler(async (event) => {
  const { environmentId } = await parseAs(UploadPicturesDto, await readJson(event));
  await uploadPictures(environmentId);
  return { ok: true };
});
