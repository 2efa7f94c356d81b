import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { publish, PublishDto } from '#server/reports';

export default defineEventHandler(async (event) => {
  const { environmentId } = await parseAs(PublishDto, await readJson(event));
  return publish(idOf(event), environmentId, event.context.person.name);
});
