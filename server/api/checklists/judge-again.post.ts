import { readJson } from '../../platform/http/body';
import { SiteIdsDto } from '../../checklists/dto';
import { parseAs } from '../../platform/http/validation';
import { startRejudging } from '../../audits/rejudging';

export default defineEventHandler(async (event) => ({
  job: (
    await startRejudging(
      (await parseAs(SiteIdsDto, await readJson(event))).siteIds,
      event.context.person.name,
    )
  ).id,
}));
