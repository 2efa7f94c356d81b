import { practiceState } from '#server/practice';

export default defineEventHandler(() => practiceState());
