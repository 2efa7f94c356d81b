import { guestOf, sendPdf, sharedWith } from '#server/reports';

export default defineEventHandler(async (event) => {
  const guest = await guestOf(event);
  const { edition } = await sharedWith(guest);
  return sendPdf(event, `/shared/${getRouterParam(event, 'secret')}`, edition, guest);
});
