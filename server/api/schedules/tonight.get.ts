import { tonight } from '../../schedules/tonight';

export default defineEventHandler(() => tonight());
