import { launchTemplate } from '#server/launch';

export default defineEventHandler(() => launchTemplate());
