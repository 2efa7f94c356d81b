import { readJson } from '../../platform/http/body';
import { EnvironmentDto } from '../../sites/dto';
import { parseAs } from '../../platform/http/validation';
import { changeEnvironment } from '../../sites/environments';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await changeEnvironment(idOf(event), await parseAs(EnvironmentDto, await readJson(event)));
  return { ok: true };
});
