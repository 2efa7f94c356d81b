import { saveLogo } from '#server/reports';

export default defineEventHandler(async (event) => {
  await saveLogo(null, event.context.person.name);
  return { ok: true };
});
