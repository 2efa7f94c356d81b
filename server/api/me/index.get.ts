import { practiceControl } from '#server/practice';

export default defineEventHandler((event) => ({
  ...event.context.person,
  demo: practiceControl() !== undefined,
}));
