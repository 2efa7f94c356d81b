import { ShareLookDto, shareLookOf } from '#server/pictures';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  shareLookOf(idOf(event), await parseAs(ShareLookDto, getQuery(event))),
);
