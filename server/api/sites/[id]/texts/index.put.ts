import { reevaluateSite } from '../../../../audits/judging';
import { TextsDto } from '../../../../intended/dto';
import { saveTexts } from '../../../../intended/texts';
import { LIMITS, readJson } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const id = idOf(event);
  const { texts } = await parseAs(TextsDto, await readJson(event, LIMITS.table));
  const by = event.context.person.name;
  const changed = await saveTexts(id, texts, by);
  if (changed) await reevaluateSite(id, { cause: 'intended texts', by });
  return { changed };
});
