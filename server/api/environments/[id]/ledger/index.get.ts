import { LedgerDto } from '#server/audits';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { ledger } from '#server/reads/ledger';

export default defineEventHandler(async (event) =>
  ledger(idOf(event), await parseAs(LedgerDto, getQuery(event))),
);
