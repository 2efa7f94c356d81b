import { LIMITS, readJson } from '../../platform/http/body';
import { CsvDto } from '../../sites/dto';
import { parseAs } from '../../platform/http/validation';
import { importCsv } from '../../sites/sites-import';

export default defineEventHandler(async (event) => {
  const { text, onlyGood } = await parseAs(CsvDto, await readJson(event, LIMITS.table));
  return importCsv(text, onlyGood ?? false, event.context.person.name);
});
