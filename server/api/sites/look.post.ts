import { LIMITS, readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { CsvDto, previewCsv } from '#server/sites';

export default defineEventHandler(async (event) =>
  previewCsv((await parseAs(CsvDto, await readJson(event, LIMITS.table))).text),
);
