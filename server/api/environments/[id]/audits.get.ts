import { HistoryDto } from '../../../audits/dto';
import { historyOf } from '../../../audits/history';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { after } = await parseAs(HistoryDto, getQuery(event));
  return historyOf(idOf(event), after);
});
