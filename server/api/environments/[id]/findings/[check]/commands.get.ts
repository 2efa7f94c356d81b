import { commandsAt } from '../../../../../audits/commands';
import { CommandsDto } from '../../../../../audits/dto';
import { checkOf, idOf } from '../../../../../platform/http/route-parameters';
import { parseAs } from '../../../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { place } = await parseAs(CommandsDto, getQuery(event));
  return commandsAt(idOf(event), checkOf(event), place);
});
