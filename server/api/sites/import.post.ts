import { LIMITS, readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { CsvDto, importCsv } from '#server/sites';

export default defineEventHandler(async (event) => {
  const { text, onlyGood } = await parseAs(CsvDto, await readJson(event, LIMITS.table));
  return importCsv(text, onlyGood ?? false, event.context.person.name);
});
