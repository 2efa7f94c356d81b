import { parseAs } from '../../../dto/validation';
import { AcceptDto } from '../../../dto/work';
import { acceptFix } from '../../../services/fixes';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler(async (event) =>
  acceptFix(idOf(event), await parseAs(AcceptDto, await readBody(event)), event.context.person),
);
