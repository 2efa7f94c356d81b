import { saveAccount, AccountDto } from '#server/launch';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  await saveAccount(idOf(event), await parseAs(AccountDto, await readJson(event)), event.context.person.name);
  return { ok: true };
});
