import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { UploadPicturesDto, uploadPictures } from '#server/practice';

/** In the demo: what somebody would upload at the host. */
export default defineEventHandler(async (event) => {
  const { environmentId } = await parseAs(UploadPicturesDto, await readJson(event));
  await uploadPictures(environmentId);
  return { ok: true };
});
