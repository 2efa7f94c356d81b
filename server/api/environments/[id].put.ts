import { readJson } from '#server/platform/http/body';
import { EnvironmentDto, changeEnvironment } from '#server/sites';
import { parseAs } from '#server/platform/http/validation';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await changeEnvironment(idOf(event), await parseAs(EnvironmentDto, await readJson(event)));
  return { ok: true };
});
