import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { LinkDto, createLink } from '#server/reports';

export default defineEventHandler(async (event) =>
  createLink(idOf(event), await parseAs(LinkDto, await readJson(event)), event.context.person.name),
);
