import { launchTemplateVersions } from '#server/launch';
import { afterVersion } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => launchTemplateVersions(afterVersion(event)));
