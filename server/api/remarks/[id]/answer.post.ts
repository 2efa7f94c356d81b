import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';
import { AnswerDto } from '../../../reports/dto';
import { answerRemark } from '../../../reports/remarks';

export default defineEventHandler(async (event) => {
  const { text } = await parseAs(AnswerDto, await readJson(event));
  await answerRemark(idOf(event), text, event.context.person.name);
  return { ok: true };
});
