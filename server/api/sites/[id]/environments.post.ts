import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { EnvironmentDto, addEnvironment } from '#server/sites';

export default defineEventHandler(async (event) => ({
  id: await addEnvironment(idOf(event), await parseAs(EnvironmentDto, await readJson(event))),
}));
