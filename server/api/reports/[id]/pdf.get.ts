import { idOf } from '../../../platform/http/route-parameters';
import { edition } from '../../../reports/composing';
import { sendPdf } from '../../../reports/send-pdf';

export default defineEventHandler(async (event) => {
  const found = await edition(idOf(event));
  return sendPdf(event, `/reports/${found.id}`, found);
});
