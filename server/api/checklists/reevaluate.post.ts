import { readJson } from '../../platform/http/body';
import { SiteIdsDto } from '../../checklists/dto';
import { parseAs } from '../../platform/http/validation';
import { startReevaluating } from '../../audits/reevaluating';

export default defineEventHandler(async (event) => ({
  job: (
    await startReevaluating(
      (await parseAs(SiteIdsDto, await readJson(event))).siteIds,
      event.context.person.name,
    )
  ).id,
}));
