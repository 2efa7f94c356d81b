import { listSchedules } from '../../schedules/schedules';

export default defineEventHandler(() => listSchedules());
