import { LedgerDto } from '../../../../audits/dto';
import { ledger } from '../../../../audits/ledger';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) =>
  ledger(idOf(event), await parseAs(LedgerDto, getQuery(event))),
);
