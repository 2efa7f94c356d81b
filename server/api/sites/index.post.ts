import { NewSiteDto } from '../../dto/sites';
import { parseAs } from '../../dto/validation';
import { takeOn } from '../../services/sites';

export default defineEventHandler(async (event) => ({
  id: await takeOn(await parseAs(NewSiteDto, await readBody(event)), event.context.person.name),
}));
