import { idOf } from '#server/platform/http/route-parameters';
import { edition, sendPdf } from '#server/reports';

export default defineEventHandler(async (event) => {
  const found = await edition(idOf(event));
  return sendPdf(event, `/reports/${found.id}`, found);
});
