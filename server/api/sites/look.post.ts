import { LIMITS, readJson } from '../../platform/http/body';
import { CsvDto } from '../../sites/dto';
import { parseAs } from '../../platform/http/validation';
import { lookAtCsv } from '../../sites/sites-import';

export default defineEventHandler(async (event) =>
  lookAtCsv((await parseAs(CsvDto, await readJson(event, LIMITS.table))).text),
);
