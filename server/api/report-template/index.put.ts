import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { TemplateDto, saveTemplate } from '#server/reports';

export default defineEventHandler(async (event) => {
  await saveTemplate(await parseAs(TemplateDto, await readJson(event)), event.context.person.name);
  return { ok: true };
});
