import { readJson } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { publish } from '../../../../reports/composing';
import { PublishDto } from '../../../../reports/dto';

export default defineEventHandler(async (event) => {
  const { environmentId } = await parseAs(PublishDto, await readJson(event));
  return publish(idOf(event), environmentId, event.context.person.name);
});
