import { readJson } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { saveDraft } from '../../../../reports/composing';
import { DraftDto } from '../../../../reports/dto';

export default defineEventHandler(async (event) => {
  const body = await parseAs(DraftDto, await readJson(event));
  return saveDraft(idOf(event), body, event.context.person.name);
});
