import { readJson } from '../platform/http/body';
import { parseAs } from '../platform/http/validation';
import { PracticeClockDto } from '../practice/dto';
import { setPracticeRate } from '../practice/practice';

export default defineEventHandler(async (event) => {
  const { rate } = await parseAs(PracticeClockDto, await readJson(event));
  await setPracticeRate(rate);
  return { ok: true };
});
