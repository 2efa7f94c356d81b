import { FoldedDto } from '#server/audits';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { foldedLines } from '#server/reads/ledger';

export default defineEventHandler(async (event) =>
  foldedLines(idOf(event), await parseAs(FoldedDto, getQuery(event))),
);
