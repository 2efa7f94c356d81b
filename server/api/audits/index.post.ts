import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';
import { StartAuditsDto } from '../../fixes/dto';
import { startAudits } from '../../audits/audits';

export default defineEventHandler(async (event) =>
  startAudits(
    (await parseAs(StartAuditsDto, await readJson(event))).environmentIds,
    event.context.person.name,
  ),
);
