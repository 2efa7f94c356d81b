import { sitesCsv } from '#server/sites';

export default defineEventHandler(async (event) => {
  setHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': 'attachment; filename="sites.csv"',
  });
  return sitesCsv();
});
