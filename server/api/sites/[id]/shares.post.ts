import { answerShare } from '../../../launch/cut-over';
import { ShareAnswerDto } from '../../../launch/dto';
import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';

/** Whether something that shares the site’s address moves with it. */
export default defineEventHandler(async (event) => {
  const { share, answer } = await parseAs(ShareAnswerDto, await readJson(event));
  await answerShare(idOf(event), share, answer ?? null);
  return { ok: true };
});
