import { tonight } from '#server/schedules';

export default defineEventHandler(() => tonight());
