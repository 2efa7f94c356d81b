import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';
import { LinkDto } from '../../../reports/dto';
import { makeLink } from '../../../reports/links';

export default defineEventHandler(async (event) =>
  makeLink(idOf(event), await parseAs(LinkDto, await readJson(event)), event.context.person.name),
);
