import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { FaultSwitchDto, switchFault } from '#server/practice';

export default defineEventHandler(async (event) => {
  await switchFault(await parseAs(FaultSwitchDto, await readJson(event)));
  return { ok: true };
});
