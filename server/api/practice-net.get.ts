import { practiceState } from '../services/practice';

export default defineEventHandler(() => practiceState());
