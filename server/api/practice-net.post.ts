import { parseAs } from '../dto/validation';
import { FaultSwitchDto } from '../dto/work';
import { switchFault } from '../services/practice';

export default defineEventHandler(async (event) => {
  await switchFault(await parseAs(FaultSwitchDto, await readBody(event)));
  return { ok: true };
});
