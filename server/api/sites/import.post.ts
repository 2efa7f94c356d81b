import { CsvDto } from '../../dto/sites';
import { parseAs } from '../../dto/validation';
import { importCsv } from '../../services/sites-import';

export default defineEventHandler(async (event) => {
  const { text, onlyGood } = await parseAs(CsvDto, await readBody(event));
  return importCsv(text, onlyGood ?? false, event.context.person.name);
});
