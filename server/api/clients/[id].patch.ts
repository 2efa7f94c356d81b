import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { renameClient, ClientDto } from '#server/sites';

export default defineEventHandler(async (event) => {
  await renameClient(idOf(event), (await parseAs(ClientDto, await readJson(event))).name.trim());
  return { ok: true };
});
