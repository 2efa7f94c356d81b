import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { PracticeNightDto, beginNight, endNight } from '#server/practice';

export default defineEventHandler(async (event) => {
  const { on } = await parseAs(PracticeNightDto, await readJson(event));
  await (on ? beginNight(event.context.person.name) : endNight());
  return { ok: true };
});
