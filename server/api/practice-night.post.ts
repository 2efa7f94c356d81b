import { readJson } from '../platform/http/body';
import { parseAs } from '../platform/http/validation';
import { PracticeNightDto } from '../practice/dto';
import { beginNight, endNight } from '../practice/night';

export default defineEventHandler(async (event) => {
  const { on } = await parseAs(PracticeNightDto, await readJson(event));
  await (on ? beginNight(event.context.person.name) : endNight());
  return { ok: true };
});
