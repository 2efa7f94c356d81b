import { KitDto, kitOf } from '#server/pictures';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** All files and the tags that name them. */
export default defineEventHandler(async (event) => {
  const { environment } = await parseAs(KitDto, getQuery(event));
  const { name, zip } = await kitOf(idOf(event), environment);
  setHeaders(event, {
    'content-type': 'application/zip',
    'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    'cache-control': 'no-store',
  });
  return zip;
});
