/**
 * Every request passes here first. It is closed unless it is opened by name: each route and page but those named
 * needs a session, and what changes anything must come from our own pages.
 */
import type { H3Event } from 'h3';
import { parseUrl } from '#core/extract/address';
import { type Person, endSession, sessionPerson } from '#server/people';
import { Forbidden, NotFound, NotSignedIn, Refused, Unavailable } from '#server/platform/errors';
import { suffices, isRoute, rightFor, type Right } from '#server/platform/http/rights';
import { isWorkerOnly, started } from '#server/platform/readiness';

const OPEN_PAGES = new Set([
  '/sign-in',
  '/sign-in/',
  '/set-password',
  '/icon.svg',
  '/favicon.ico',
  '/__nuxt_error',
]);
/** Pages behind a secret: what they show is asked for with it. */
const SHARED_PAGE = /^\/shared\/[\w-]+\/?$/;
/** The application's own files. */
const FILES = '/_nuxt/';
/** What nuxt-auth-utils tells a browser of its own session. */
const OWN_SESSION = '/api/_auth/session';
/** Routes that take a file's bytes. */
const TAKES_BYTES =
  /^\/api\/(?:environments\/\d+\/(?:files|pictures)|sites\/\d+\/build|report-template\/logo)$/;

/**
 * The path as it came, up to the query. What a router might read as another path is refused, so that this and
 * the router decide on the same one.
 * @throws Refused
 */
function rawPath(event: H3Event): string {
  const [path = ''] = (event.node.req.url ?? '').split('?');
  const isPlain =
    path.startsWith('/') && !path.startsWith('//') && !/[\\\0-\x20]|%(?:2f|5c|2e|00)/i.test(path);
  if (!isPlain || path.split('/').some((part) => part === '.' || part === '..'))
    throw new Refused('This address is not taken.');
  return path;
}

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
  if (/^application\/json\b/.test(type) || path === OWN_SESSION) return true;
  return TAKES_BYTES.test(path) && type === 'application/octet-stream';
}

const isRead = (method: string): boolean => method === 'GET' || method === 'HEAD';

/** @throws Refused, Forbidden */
function refuseUnfit(event: H3Event, path: string): void {
  if (isRead(event.method)) {
    if (Number(getHeader(event, 'content-length') ?? 0) > 0 || getHeader(event, 'transfer-encoding'))
      throw new Refused('A body is not taken here.');
    return;
  }
  if (isForeign(event)) throw new Forbidden('This request came from another site and was not taken.');
  if (!hasOwnType(event, path)) throw new Refused('JSON is expected.');
}

const rightForPage = (path: string): Right =>
  OPEN_PAGES.has(path) || SHARED_PAGE.test(path) ? 'anyone' : 'signed in';

/** @throws Forbidden */
async function letIn(event: H3Event, person: Person, needs: Right, path: string): Promise<void> {
  if (!suffices(person.owner ? 'owner' : 'signed in', needs))
    throw new Forbidden('Only an owner of this account may do that.');
  event.context.person = person;
  // what is no route would be answered with the application's own page
  if (path.startsWith('/api/') && path !== OWN_SESSION && !isRoute(path))
    throw new NotFound('There is no such route.');
  // signing out by this route ends the session as any other way does
  if (path === OWN_SESSION && event.method === 'DELETE') await endSession(event);
}

async function waitForStart(): Promise<void> {
  await started().catch((error: Error) => {
    throw new Unavailable(error.message);
  });
}

export default defineEventHandler(async (event) => {
  const path = rawPath(event);
  if (process.env.ARMBAND_BEHIND_HTTPS === '1')
    setResponseHeader(event, 'strict-transport-security', 'max-age=31536000');
  // nothing of this is for search engines
  setResponseHeader(event, 'x-robots-tag', 'noindex, nofollow');
  refuseUnfit(event, path);
  if (path.startsWith(FILES)) return;
  const isApi = path.startsWith('/api/');
  if (isApi) setResponseHeader(event, 'cache-control', 'no-store');
  if (path === '/api/health') return;
  if (isWorkerOnly()) throw new NotFound('This is a worker: it works, and shows nothing.');
  await waitForStart();
  const needs = isApi ? rightFor(event.method, path) : rightForPage(path);
  if (needs === 'anyone') return;
  const person = await sessionPerson(event);
  if (person) return letIn(event, person, needs, path);
  // a browser may ask whether it has a session
  if (path === OWN_SESSION) return;
  if (isApi) throw new NotSignedIn('Sign in first.');
  return sendRedirect(event, `/sign-in${path === '/' ? '' : `?to=${encodeURIComponent(path)}`}`);
});
