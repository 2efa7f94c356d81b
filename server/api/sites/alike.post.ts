import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';
import { alikeTo } from '../../sites/clients';
import { AlikeDto } from '../../sites/dto';

export default defineEventHandler(async (event) => {
  const { client, urls, except } = await parseAs(AlikeDto, await readJson(event));
  return alikeTo({ urls, ...(client ? { client } : {}) }, except);
});
