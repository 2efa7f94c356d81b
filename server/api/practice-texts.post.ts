import { readJson } from '../platform/http/body';
import { parseAs } from '../platform/http/validation';
import { TypeTextsDto } from '../practice/dto';
import { typeTexts } from '../practice/practice';

/** In the demo: what somebody would type in at the host. */
export default defineEventHandler(async (event) => {
  const { environmentId, paths } = await parseAs(TypeTextsDto, await readJson(event));
  await typeTexts(environmentId, paths);
  return { ok: true };
});
