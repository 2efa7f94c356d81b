import { commandsAt, CommandsDto } from '#server/audits';
import { checkOf, idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { place } = await parseAs(CommandsDto, getQuery(event));
  return commandsAt(idOf(event), checkOf(event), place);
});
