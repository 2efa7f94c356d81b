import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';
import { TemplateDto } from '../../reports/dto';
import { saveTemplate } from '../../reports/template';

export default defineEventHandler(async (event) => {
  await saveTemplate(await parseAs(TemplateDto, await readJson(event)), event.context.person.name);
  return { ok: true };
});
