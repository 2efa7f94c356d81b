import { guestOf } from '../../../reports/links';
import { sendPdf } from '../../../reports/send-pdf';
import { sharedWith } from '../../../reports/shared';

export default defineEventHandler(async (event) => {
  const { edition } = await sharedWith(await guestOf(event));
  const { report, number } = edition;
  return sendPdf(event, `/shared/${getRouterParam(event, 'secret')}`, `${report.site} ${number}`);
});
