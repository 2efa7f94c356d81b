/** Every route and page but sign-in needs a session; state-changing routes must come from our own pages. */
import type { H3Event } from 'h3';
import { parseUrl } from '#core/extract/address';
import { Forbidden, NotSignedIn, Refused, Unavailable } from '../platform/errors';
import { started } from '../platform/readiness';

const OPEN = new Set(['/api/sign-in', '/api/health']);
/** Routes that take a file's bytes. */
const FILES = /^\/api\/environments\/\d+\/files$/;
const OPEN_PAGES = /^\/(sign-in\/?$|_nuxt\/|icon\.svg$|favicon\.ico$|__nuxt_error|api\/_auth\/)/;

/** A browser says where a request comes from; what comes from elsewhere is not taken. */
function isForeign(event: H3Event): boolean {
  const site = getHeader(event, 'sec-fetch-site');
  if (site) return site !== 'same-origin';
  const origin = getHeader(event, 'origin');
  return origin !== undefined && parseUrl(origin)?.host !== getRequestHost(event, { xForwardedHost: true });
}

/** Types that no form of another site can send. */
function hasOwnType(event: H3Event, path: string): boolean {
  const type = getHeader(event, 'content-type') ?? '';
  if (/^application\/json\b/.test(type) || path.startsWith('/api/_auth/')) return true;
  return FILES.test(path) && type === 'application/octet-stream';
}

export default defineEventHandler(async (event) => {
  const path = getRequestURL(event).pathname;
  if (path.startsWith('/_nuxt/')) return;
  await started().catch(() => {
    throw new Unavailable(
      'Armband could not start. Its log says why; mostly the database cannot be reached.',
    );
  });
  if (event.method !== 'GET' && event.method !== 'HEAD') {
    if (isForeign(event)) throw new Forbidden('This request came from another site and was not taken.');
    if (!hasOwnType(event, path)) throw new Refused('JSON is expected.');
  }
  if (OPEN.has(path) || OPEN_PAGES.test(path)) return;
  const { user } = await getUserSession(event);
  if (user) {
    event.context.person = user;
    return;
  }
  if (path.startsWith('/api/')) throw new NotSignedIn('Sign in first.');
  return sendRedirect(event, `/sign-in${path === '/' ? '' : `?to=${encodeURIComponent(path)}`}`);
});
