import { LIMITS, readJson } from '#server/platform/http/body';
import { CsvDto, previewCsv } from '#server/sites';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  previewCsv((await parseAs(CsvDto, await readJson(event, LIMITS.table))).text),
);
