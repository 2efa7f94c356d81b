import { launchTemplate } from '../../launch/template';

export default defineEventHandler(() => launchTemplate());
