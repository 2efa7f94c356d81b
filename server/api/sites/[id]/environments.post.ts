import { readJson } from '#server/platform/http/body';
import { EnvironmentDto, addEnvironment } from '#server/sites';
import { parseAs } from '#server/platform/http/validation';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => ({
  id: await addEnvironment(idOf(event), await parseAs(EnvironmentDto, await readJson(event))),
}));
