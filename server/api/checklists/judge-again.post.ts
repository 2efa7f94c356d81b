import { SiteIdsDto } from '../../dto/rules';
import { parseAs } from '../../dto/validation';
import { startRejudging } from '../../services/rejudging';

export default defineEventHandler(async (event) => ({
  job: (
    await startRejudging(
      (await parseAs(SiteIdsDto, await readBody(event))).siteIds,
      event.context.person.name,
    )
  ).id,
}));
