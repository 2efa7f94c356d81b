/** What other subjects and routes may use of schedules. */
export { connectSchedules } from './connect';
export { ScheduleDto } from './dto';
export { notifyNews } from './news';
export { deleteOldPlans, planAhead, runDueSchedules, storeSchedule } from './planning';
export { builtInSchedules, deleteSchedule, ensureProposal, listSchedules } from './schedules';
export { tonight } from './tonight';
