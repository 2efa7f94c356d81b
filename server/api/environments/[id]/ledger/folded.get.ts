import { FoldedDto } from '../../../../audits/dto';
import { foldedLines } from '../../../../audits/ledger';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) =>
  foldedLines(idOf(event), await parseAs(FoldedDto, getQuery(event))),
);
