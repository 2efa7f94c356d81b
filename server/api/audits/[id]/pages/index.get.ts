import { packedPages, pagesOf, type PagesAnswer } from '#server/pages';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event): Promise<PagesAnswer> => {
  const id = idOf(event);
  if (!/\bbr\b/.test(getHeader(event, 'accept-encoding') ?? '')) return pagesOf(id);
  const packed = await packedPages(id);
  setHeader(event, 'content-encoding', 'br');
  setHeader(event, 'content-type', 'application/json');
  // it is kept as it is sent
  return packed as unknown as PagesAnswer;
});
