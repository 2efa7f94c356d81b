import { TextPathDto, versionsOf } from '#server/intended';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  versionsOf(idOf(event), (await parseAs(TextPathDto, getQuery(event))).path),
);
