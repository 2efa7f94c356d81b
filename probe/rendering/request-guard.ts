/**
 * Decides about every request of the browser, at every hop: those of frames, workers and windows too, and each
 * address that a redirect leads to. A secret is put into requests to the origins it was entered for, and a request
 * that counts a visit never leaves.
 */
import type { Browser } from 'playwright-core';
import { parseUrl } from '#core/extract/address';
import { measuringHit } from '#core/extract/measuring';
import { openDoor, type Access } from '../http/access';

/** How much of what a request sends is read for an analytics ID. */
export const LONGEST_BODY = 20_000;

interface GuardTools {
  access?: Access;
  /** Analytics IDs whose hits are known by them. */
  ids: readonly string[];
}

/** Of `Fetch.requestPaused` (Chrome DevTools Protocol, Fetch domain). */
interface Paused {
  requestId: string;
  resourceType: string;
  request: {
    url: string;
    headers: Record<string, string>;
    postDataEntries?: { bytes?: string }[];
  };
}
interface HeaderEntry {
  name: string;
  value: string;
}

const bodyOf = ({ postDataEntries = [] }: Paused['request']): string =>
  Buffer.concat(postDataEntries.map(({ bytes = '' }) => Buffer.from(bytes, 'base64')))
    .toString('utf8')
    .slice(0, LONGEST_BODY);

/** A page of another origin may read that its visit was counted. */
function emptyAnswer({ headers }: Paused['request']): {
  responseCode: number;
  responseHeaders: HeaderEntry[];
} {
  const origin = Object.entries(headers).find(([name]) => /^origin$/i.test(name))?.[1];
  const responseHeaders = origin
    ? [
        { name: 'access-control-allow-origin', value: origin },
        { name: 'access-control-allow-credentials', value: 'true' },
      ]
    : [];
  return { responseCode: 204, responseHeaders };
}

/**
 * What is asked in place of a request that needs the secret; nothing where it goes out as it is. What is put in
 * holds for this hop alone: a redirect that follows is paused again, without it.
 */
function openedRequest(
  access: Access | undefined,
  { url, headers }: Pick<Paused['request'], 'url' | 'headers'>,
): { url: string; headers: HeaderEntry[] } | undefined {
  const address = parseUrl(url);
  if (!address || !access || !('origins' in access) || !access.origins.includes(address.origin))
    return undefined;
  const plain = Object.fromEntries(
    Object.entries(headers).map(([name, value]) => [
      /^(?:cookie|authorization)$/i.test(name) ? name.toLowerCase() : name,
      value,
    ]),
  );
  const opened = openDoor(access, address, plain);
  return {
    url: address.origin + opened.path,
    headers: Object.entries(opened.headers).map(([name, value]) => ({ name, value })),
  };
}

/** Guards all that a browser asks for, until it ends. */
export async function guardRequests(browser: Browser, { access, ids }: GuardTools): Promise<void> {
  // the browser's own session sees what no page's session does: workers, frames of other processes, windows
  const session = await browser.newBrowserCDPSession();
  const decide = async ({ requestId, resourceType, request }: Paused): Promise<void> => {
    const sent = { url: request.url, type: resourceType.toLowerCase(), body: bodyOf(request) };
    if (measuringHit(sent, ids))
      await session.send('Fetch.fulfillRequest', { requestId, ...emptyAnswer(request) });
    else await session.send('Fetch.continueRequest', { requestId, ...openedRequest(access, request) });
  };
  session.on('Fetch.requestPaused', (paused: Paused) => {
    decide(paused).catch(() =>
      // one that cannot be decided is not sent; one that was given up meanwhile is no longer there
      session
        .send('Fetch.failRequest', { requestId: paused.requestId, errorReason: 'Aborted' })
        .catch(() => {}),
    );
  });
  await session.send('Fetch.enable', { patterns: [{ urlPattern: '*', requestStage: 'Request' }] });
}
