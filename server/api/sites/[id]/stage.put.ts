import { StageDto } from '../../../dto/sites';
import { parseAs } from '../../../dto/validation';
import { idOf } from '../../../services/route-parameters';
import { setStage } from '../../../services/sites';

export default defineEventHandler(async (event) => {
  await setStage(
    idOf(event),
    (await parseAs(StageDto, await readBody(event))).stage,
    event.context.person.name,
  );
  return { ok: true };
});
