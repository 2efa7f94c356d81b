import { PageDto } from '../../../../audits/dto';
import { pageOf } from '../../../../pages/pages';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { url } = await parseAs(PageDto, getQuery(event));
  return pageOf(idOf(event), url);
});
