import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { AnswerDto, answerRemark } from '#server/reports';

export default defineEventHandler(async (event) => {
  const { text } = await parseAs(AnswerDto, await readJson(event));
  await answerRemark(idOf(event), text, event.context.person.name);
  return { ok: true };
});
