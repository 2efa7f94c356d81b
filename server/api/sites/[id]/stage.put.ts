import { readJson } from '../../../platform/http/body';
import { StageDto } from '../../../sites/dto';
import { parseAs } from '../../../platform/http/validation';
import { idOf } from '../../../platform/http/route-parameters';
import { setStage } from '../../../sites/sites';

export default defineEventHandler(async (event) => {
  await setStage(
    idOf(event),
    (await parseAs(StageDto, await readJson(event))).stage,
    event.context.person.name,
  );
  return { ok: true };
});
