import { answerShare, ShareAnswerDto } from '#server/launch';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** Whether something that shares the site’s address moves with it. */
export default defineEventHandler(async (event) => {
  const { share, answer } = await parseAs(ShareAnswerDto, await readJson(event));
  await answerShare(idOf(event), share, answer ?? null);
  return { ok: true };
});
