import { LaunchTemplateDto } from '../../launch/dto';
import { saveLaunchTemplate } from '../../launch/template';
import { LIMITS, readJson } from '../../platform/http/body';
import { templateVersion } from '../../platform/http/route-parameters';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const template = await parseAs(LaunchTemplateDto, await readJson(event, LIMITS.document));
  return saveLaunchTemplate(template, templateVersion(event), event.context.person.name);
});
