import { readStoredFile } from '#server/platform/files/files';
import { idOf } from '#server/platform/http/route-parameters';

/** Pictures are shown, everything else is saved; nothing of it may run, whatever it says it is. */
export default defineEventHandler(async (event) => {
  const file = await readStoredFile(idOf(event));
  const shown = file.type.startsWith('image/');
  setHeaders(event, {
    'content-type': file.type,
    'content-disposition': `${shown ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'x-content-type-options': 'nosniff',
    'content-security-policy': "default-src 'none'; sandbox",
    'cache-control': 'private, max-age=3600',
  });
  return file.data;
});
