import { TextPathDto } from '../../../../intended/dto';
import { versionsOf } from '../../../../intended/texts';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) =>
  versionsOf(idOf(event), (await parseAs(TextPathDto, getQuery(event))).path),
);
