import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { TypeTextsDto, typeTexts } from '#server/practice';

/** In the demo: what somebody would type in at the host. */
export default defineEventHandler(async (event) => {
  const { environmentId, paths } = await parseAs(TypeTextsDto, await readJson(event));
  await typeTexts(environmentId, paths);
  return { ok: true };
});
