import { readJson } from '../../../platform/http/body';
import { parseAs } from '../../../platform/http/validation';
import { AcceptDto } from '../../../fixes/dto';
import { acceptFix } from '../../../fixes/fixes';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler(async (event) =>
  acceptFix(idOf(event), await parseAs(AcceptDto, await readJson(event)), event.context.person),
);
