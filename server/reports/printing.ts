/**
 * A page of our own as PDF, printed by the browser that looks at sites too. It has no network at all: what the page
 * asks for is answered within this process, for the person or guest who asked for the PDF.
 */
import type { H3Event } from 'h3';
import { getHeader } from 'h3';
import PQueue from 'p-queue';
import type { Route } from 'playwright-core';
import { GuardedBrowser, isThere, startPatiently, type BrowserSettings } from '#probe/rendering/browser';
import { browserSettings } from '#server/audits';
import { TooMany, Unavailable } from '#server/platform/errors';

/** Nothing listens at the discard port. */
const NOWHERE = 'http://127.0.0.1:9';
/** A name that is nobody’s (RFC 6761 6.4). */
const ORIGIN = 'http://armband.invalid';
const READY_MS = 30_000;
/** How a page says that all of it is there. */
const READY = '[data-ready]';
const NO_BROWSER =
  'There is no browser here to make a PDF with. Print the page from your own: it is made for paper too.';

/** Browsers take memory: one after the other, and not too many waiting. */
const printQueue = new PQueue({ concurrency: 1 });
const MOST_WAITING = 5;

async function answer(route: Route, cookie: string): Promise<void> {
  const request = route.request();
  const url = new URL(request.url());
  if (url.origin !== ORIGIN || request.method() !== 'GET') return route.abort();
  const response = await useNitroApp().localFetch(`${url.pathname}${url.search}`, {
    headers: { accept: request.headers().accept ?? '*/*', ...(cookie ? { cookie } : {}) },
  });
  await route.fulfill({
    status: response.status,
    contentType: response.headers.get('content-type') ?? undefined,
    body: Buffer.from(await response.arrayBuffer()),
  });
}

/**
 * @param path of a page that prints well
 * @param isFirst before those that are not, where several wait
 * @throws Unavailable, TooMany
 */
export async function printPdf(
  event: H3Event,
  path: string,
  { isFirst }: { isFirst: boolean },
): Promise<Buffer> {
  const settings = browserSettings();
  if (!isThere(settings)) throw new Unavailable(NO_BROWSER);
  if (!isFirst && printQueue.size >= MOST_WAITING)
    throw new TooMany('Several PDFs are being made already. Wait a moment and try again.');
  const cookie = getHeader(event, 'cookie') ?? '';
  const pdf = await printQueue.add(() => print(cookie, path, settings), { priority: isFirst ? 1 : 0 });
  return pdf as Buffer;
}

async function print(cookie: string, path: string, settings: BrowserSettings): Promise<Buffer> {
  let browser: GuardedBrowser | undefined;
  try {
    browser = await startPatiently(() => GuardedBrowser.start(settings, NOWHERE));
    const page = await browser.browser.newPage({ colorScheme: 'light', serviceWorkers: 'block' });
    await page.route('**/*', (route) => answer(route, cookie));
    await page.goto(`${ORIGIN}${path}`, { timeout: READY_MS });
    await page.waitForSelector(READY, { timeout: READY_MS, state: 'attached' });
    return await page.pdf({ format: 'A4', printBackground: true, preferCSSPageSize: true, tagged: true });
  } catch (error) {
    throw new Unavailable(
      `The PDF could not be made: ${browser?.ended ?? (error as Error).message.split('\n')[0]}.`,
    );
  } finally {
    await browser?.close();
  }
}
