import { changeTexts } from '../../../../intended/changing';
import { TextsDto } from '../../../../intended/dto';
import { LIMITS, readJson } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { texts } = await parseAs(TextsDto, await readJson(event, LIMITS.table));
  return { changed: await changeTexts(idOf(event), texts, event.context.person.name) };
});
