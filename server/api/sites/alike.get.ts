import { parseAs } from '../../platform/http/validation';
import { alikeTo } from '../../sites/clients';
import { AlikeDto } from '../../sites/dto';

export default defineEventHandler(async (event) => {
  const { client, urls = [], except } = await parseAs(AlikeDto, getQuery(event));
  return alikeTo({ urls, ...(client ? { client } : {}) }, except);
});
