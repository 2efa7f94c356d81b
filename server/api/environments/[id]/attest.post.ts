import { AttestDto, attest } from '#server/audits';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  await attest(idOf(event), await parseAs(AttestDto, await readJson(event)), event.context.person);
  return { ok: true };
});
