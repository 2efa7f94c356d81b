import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';
import { mergeClients } from '../../../sites/clients';
import { MergeDto } from '../../../sites/dto';

export default defineEventHandler(async (event) => {
  await mergeClients(idOf(event), (await parseAs(MergeDto, await readJson(event))).into);
  return { ok: true };
});
