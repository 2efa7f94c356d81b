import { saveAccount } from '../../../launch/accounts';
import { AccountDto } from '../../../launch/dto';
import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  await saveAccount(idOf(event), await parseAs(AccountDto, await readJson(event)), event.context.person.name);
  return { ok: true };
});
