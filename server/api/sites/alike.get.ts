import { parseAs } from '#server/platform/http/validation';
import { alikeTo, AlikeDto } from '#server/sites';

export default defineEventHandler(async (event) => {
  const { client, urls = [], except } = await parseAs(AlikeDto, getQuery(event));
  return alikeTo({ urls, ...(client ? { client } : {}) }, except);
});
