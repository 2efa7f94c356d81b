import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { PracticeClockDto, setPracticeRate } from '#server/practice';

export default defineEventHandler(async (event) => {
  const { rate } = await parseAs(PracticeClockDto, await readJson(event));
  await setPracticeRate(rate);
  return { ok: true };
});
