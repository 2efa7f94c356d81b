import { changeTexts, TextsDto } from '#server/intended';
import { LIMITS, readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { texts } = await parseAs(TextsDto, await readJson(event, LIMITS.table));
  return { changed: await changeTexts(idOf(event), texts, event.context.person.name) };
});
