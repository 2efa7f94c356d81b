import { LaunchTemplateDto, saveLaunchTemplate } from '#server/launch';
import { LIMITS, readJson } from '#server/platform/http/body';
import { templateVersion } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const template = await parseAs(LaunchTemplateDto, await readJson(event, LIMITS.document));
  return saveLaunchTemplate(template, templateVersion(event), event.context.person.name);
});
