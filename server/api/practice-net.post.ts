import { readJson } from '../platform/http/body';
import { parseAs } from '../platform/http/validation';
import { FaultSwitchDto } from '../fixes/dto';
import { switchFault } from '../practice/practice';

export default defineEventHandler(async (event) => {
  await switchFault(await parseAs(FaultSwitchDto, await readJson(event)));
  return { ok: true };
});
