import { atTheDoor, guestOf } from '../../../reports/links';
import { sharedWith } from '../../../reports/shared';

export default defineEventHandler(async (event) => {
  const door = await atTheDoor(event);
  return { ...door, shared: door.isOpen ? await sharedWith(await guestOf(event)) : null };
});
