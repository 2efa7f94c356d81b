import { HistoryDto, historyOf } from '#server/audits';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { after } = await parseAs(HistoryDto, getQuery(event));
  return historyOf(idOf(event), after);
});
