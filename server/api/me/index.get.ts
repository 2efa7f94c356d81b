import { practiceControl } from '../../practice/practice';

export default defineEventHandler((event) => ({
  ...event.context.person,
  demo: practiceControl() !== undefined,
}));
