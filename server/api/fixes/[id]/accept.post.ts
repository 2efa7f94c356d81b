import { AcceptDto, acceptFix } from '#server/fixes';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  acceptFix(idOf(event), await parseAs(AcceptDto, await readJson(event)), event.context.person),
);
