import { CsvDto } from '../../dto/sites';
import { parseAs } from '../../dto/validation';
import { lookAtCsv } from '../../services/sites-import';

export default defineEventHandler(async (event) =>
  lookAtCsv((await parseAs(CsvDto, await readBody(event))).text),
);
