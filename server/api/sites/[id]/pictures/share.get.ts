import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { ShareLookDto } from '../../../../pictures/dto';
import { shareLookOf } from '../../../../pictures/pictures';

export default defineEventHandler(async (event) =>
  shareLookOf(idOf(event), await parseAs(ShareLookDto, getQuery(event))),
);
