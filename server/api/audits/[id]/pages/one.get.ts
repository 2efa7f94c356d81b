import { PageDto } from '#server/audits';
import { pageOf } from '#server/pages';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { url } = await parseAs(PageDto, getQuery(event));
  return pageOf(idOf(event), url);
});
