import { readJson } from '../../platform/http/body';
import { NewSiteDto } from '../../sites/dto';
import { parseAs } from '../../platform/http/validation';
import { takeOn } from '../../sites/sites';

export default defineEventHandler(async (event) => ({
  id: await takeOn(await parseAs(NewSiteDto, await readJson(event)), event.context.person.name),
}));
