import { FoldedDto } from '../../../../audits/dto';
import { foldedLines } from '../../../../audits/ledger';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const asked = await parseAs(FoldedDto, getQuery(event));
  return foldedLines(idOf(event), asked.section, asked);
});
