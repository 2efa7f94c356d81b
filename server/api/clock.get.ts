import { clockRate, now } from '#server/platform/clock';

/** What time it is for all that is judged and planned, and how fast it goes. */
export default defineEventHandler(() => ({ now: now().toISOString(), rate: clockRate() }));
