import { guestOf } from '../../../reports/links';
import { sendPdf } from '../../../reports/send-pdf';
import { sharedWith } from '../../../reports/shared';

export default defineEventHandler(async (event) => {
  const guest = await guestOf(event);
  const { edition } = await sharedWith(guest);
  return sendPdf(event, `/shared/${getRouterParam(event, 'secret')}`, edition, guest);
});
