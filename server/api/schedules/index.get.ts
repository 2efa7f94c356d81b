import { listSchedules } from '#server/schedules';

export default defineEventHandler(() => listSchedules());
