import { launchTemplateVersions } from '../../launch/template';
import { afterVersion } from '../../platform/http/route-parameters';

export default defineEventHandler((event) => launchTemplateVersions(afterVersion(event)));
