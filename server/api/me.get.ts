import { practiceControl } from '../services/practice';

export default defineEventHandler((event) => ({
  ...event.context.person,
  demo: practiceControl() !== undefined,
}));
