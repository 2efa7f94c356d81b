import { readJson } from '../../platform/http/body';
import { idOf } from '../../platform/http/route-parameters';
import { parseAs } from '../../platform/http/validation';
import { renameClient } from '../../sites/clients';
import { ClientDto } from '../../sites/dto';

export default defineEventHandler(async (event) => {
  await renameClient(idOf(event), (await parseAs(ClientDto, await readJson(event))).name.trim());
  return { ok: true };
});
