import { practiceState } from '../practice/practice';

export default defineEventHandler(() => practiceState());
