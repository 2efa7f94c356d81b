import { readJson } from '../../../platform/http/body';
import { EnvironmentDto } from '../../../sites/dto';
import { parseAs } from '../../../platform/http/validation';
import { addEnvironment } from '../../../sites/environments';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler(async (event) => ({
  id: await addEnvironment(idOf(event), await parseAs(EnvironmentDto, await readJson(event))),
}));
