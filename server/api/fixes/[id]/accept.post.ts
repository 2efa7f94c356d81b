import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { AcceptDto, acceptFix } from '#server/fixes';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) =>
  acceptFix(idOf(event), await parseAs(AcceptDto, await readJson(event)), event.context.person),
);
