import { parseAs } from '../../dto/validation';
import { StartAuditsDto } from '../../dto/work';
import { startAudits } from '../../services/audits';

export default defineEventHandler(async (event) =>
  startAudits(
    (await parseAs(StartAuditsDto, await readBody(event))).environmentIds,
    event.context.person.name,
  ),
);
