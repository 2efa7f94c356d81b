import { readJson } from '../../platform/http/body';
import { NewSiteDto } from '../../sites/dto';
import { parseAs } from '../../platform/http/validation';
import { addSite } from '../../sites/sites';

export default defineEventHandler(async (event) => ({
  id: await addSite(await parseAs(NewSiteDto, await readJson(event)), event.context.person.name),
}));
