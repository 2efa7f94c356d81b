import { SeenInDto, textsOf } from '#server/intended';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  textsOf(idOf(event), (await parseAs(SeenInDto, getQuery(event))).environment),
);
