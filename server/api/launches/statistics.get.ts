import { launchStatistics } from '#server/launch';

export default defineEventHandler(() => launchStatistics());
