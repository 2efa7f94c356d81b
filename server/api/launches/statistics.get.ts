import { launchStatistics } from '../../launch/log';

export default defineEventHandler(() => launchStatistics());
