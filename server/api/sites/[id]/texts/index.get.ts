import { SeenInDto } from '../../../../intended/dto';
import { textsOf } from '../../../../intended/texts';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) =>
  textsOf(idOf(event), (await parseAs(SeenInDto, getQuery(event))).environment),
);
