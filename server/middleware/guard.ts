/** Every route and page but sign-in needs a session; state-changing routes must come from our own pages. */
import { parseUrl } from '#core/extract/address';
import { refuse } from '../platform/http/failure';
import { started } from '../platform/readiness';

const OPEN = new Set(['/api/sign-in', '/api/health']);
/** Routes that take a file's bytes. */
const FILES = /^\/api\/environments\/\d+\/files$/;
const OPEN_PAGES = /^\/(sign-in\/?$|_nuxt\/|icon\.svg$|favicon\.ico$|__nuxt_error|api\/_auth\/)/;

export default defineEventHandler(async (event) => {
  const path = getRequestURL(event).pathname;
  if (path.startsWith('/_nuxt/')) return;
  await started().catch(() => {
    throw refuse(503, 'Armband could not start. Its log says why; mostly the database cannot be reached.');
  });
  const method = event.method;
  if (method !== 'GET' && method !== 'HEAD') {
    // a browser says where a request comes from; what comes from elsewhere is not taken
    const site = getHeader(event, 'sec-fetch-site');
    const origin = getHeader(event, 'origin');
    const foreign = site
      ? site !== 'same-origin'
      : origin !== undefined && parseUrl(origin)?.host !== getRequestHost(event, { xForwardedHost: true });
    if (foreign) throw refuse(403, 'This request came from another site and was not taken.');
    // neither type can be sent by a form of another site
    const type = getHeader(event, 'content-type') ?? '';
    const isFile = FILES.test(path) && type === 'application/octet-stream';
    if (!/^application\/json\b/.test(type) && !isFile && !path.startsWith('/api/_auth/'))
      throw refuse(400, 'JSON is expected.');
  }
  if (OPEN.has(path) || OPEN_PAGES.test(path)) return;
  const { user } = await getUserSession(event);
  if (user) {
    event.context.person = user;
    return;
  }
  if (path.startsWith('/api/')) throw refuse(401, 'Sign in first.');
  return sendRedirect(event, `/sign-in${path === '/' ? '' : `?to=${encodeURIComponent(path)}`}`);
});
