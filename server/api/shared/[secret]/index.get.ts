import { linkStatus, guestOf, sharedWith } from '#server/reports';

export default defineEventHandler(async (event) => {
  const door = await linkStatus(event);
  return { ...door, shared: door.isOpen ? await sharedWith(await guestOf(event)) : null };
});
