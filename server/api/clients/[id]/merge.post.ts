import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { mergeClients, MergeDto } from '#server/sites';

export default defineEventHandler(async (event) => {
  await mergeClients(idOf(event), (await parseAs(MergeDto, await readJson(event))).into);
  return { ok: true };
});
