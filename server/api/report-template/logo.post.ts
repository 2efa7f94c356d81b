import { readBytes } from '#server/platform/http/body';
import { MOST_LOGO_BYTES, saveLogo } from '#server/reports';

/** The picture’s bytes as the body. */
export default defineEventHandler(async (event) => {
  await saveLogo(await readBytes(event, MOST_LOGO_BYTES), event.context.person.name);
  return { ok: true };
});
