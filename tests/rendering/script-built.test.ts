/** A site that scripts build: its pages are found by the links that a browser shows, and read as it shows them. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Evidence, PageEvidence } from '#core/facts/evidence';
import { collect } from '#probe/collect';
import { USUAL_BROWSER } from '#probe/rendering/browser';
import { LocalServers } from '../local-servers';

const servers = new LocalServers();
afterAll(() => servers.close());

const PAGES = 12;
const SITE = 'http://ropewalk.example/';
/** Paths whose head says noindex as served. */
const HIDDEN = '/walk/5';

/** One script for all addresses, as applications have it. */
const SCRIPT = `
const number = Number(location.pathname.split('/').at(-1)) || 0;
document.title = number ? 'Rope number ' + number : 'Ropewalk';
if (location.pathname === '/moved') location.replace('/walk/2');
document.getElementById('app').innerHTML =
  '<h1>' + document.title + '</h1><p>A rope is laid from three strands, and this page tells how it is done.</p>' +
  (number < ${PAGES} - 1 ? '<a href="/walk/' + (number + 1) + '">Next</a>' : '<a href="mailto:loft@ropewalk.example">Write</a>') +
  (number ? '' : '<a href="/moved">Moved</a><a href="/nothing">Nothing</a>');
new Image().src = '/seen/' + screen.width;
`;
const shell = (path: string): string =>
  `<!doctype html><html lang="en"><head><title>Ropewalk</title>${path === HIDDEN ? '<meta name="robots" content="noindex">' : ''}</head><body><div id="app"></div><script src="${path === '/nothing' ? '/none.js' : '/app.js'}"></script></body></html>`;

let evidence: Evidence;
const widths = new Set<string>();
beforeAll(async () => {
  const at = await servers.http((req, res) => {
    const path = new URL(req.url!, SITE).pathname;
    if (path.startsWith('/seen/')) {
      widths.add(path.slice('/seen/'.length));
      return void res.writeHead(404).end();
    }
    const isPage = /^\/(?:walk\/\d+|moved|nothing)?$/.test(path);
    const type = path === '/app.js' || path === '/none.js' ? 'text/javascript' : 'text/html';
    const body = path === '/app.js' ? SCRIPT : path === '/none.js' ? '' : shell(path);
    res.writeHead(isPage || type === 'text/javascript' ? 200 : 404, { 'content-type': type }).end(body);
  });
  evidence = await collect({
    url: SITE,
    kind: 'before',
    allowPrivate: true,
    map: [`ropewalk.example=127.0.0.1:${new URL(at).port}`],
    maxPages: 50,
    retryPauseMs: 5,
    render: { browser: { ...USUAL_BROWSER, sandbox: process.getuid?.() !== 0 }, pages: 0 },
  });
}, 90_000);

const pageAt = (path: string): PageEvidence | undefined =>
  evidence.pages.find((p) => new URL(p.url).pathname === path);

describe('a site that scripts build', () => {
  it('is read whole, by the links that its scripts write', () => {
    const paths = evidence.pages.map((p) => new URL(p.url).pathname);
    expect(paths).toEqual(
      expect.arrayContaining(['/', ...Array.from({ length: PAGES - 1 }, (_, i) => `/walk/${i + 1}`)]),
    );
    expect(pageAt('/walk/3')).toMatchObject({ via: 'link', from: `${SITE}walk/2`, depth: 3 });
  });
  it('each page has the facts that a browser shows, beside those of the shell', () => {
    const page = pageAt('/walk/11')!;
    expect(page.facts).toMatchObject({ titles: [{ text: 'Ropewalk' }], anchors: [] });
    expect(page.rendered?.facts).toMatchObject({
      titles: [{ text: 'Rope number 11' }],
      anchors: [{ href: 'mailto:loft@ropewalk.example' }],
    });
  });
  it('is looked at on one screen beside the full look at the home page', () => {
    expect([...widths].sort()).toEqual(['1280', '390']);
    expect(evidence.rendered?.pages.map((p) => p.url)).toEqual([SITE]);
    expect(pageAt('/walk/3')?.rendered).not.toHaveProperty('first');
  });
  it('a page whose scripts lead on has no facts of the other one', () => {
    expect(pageAt('/moved')?.rendered).toEqual({
      failure: `its scripts lead on to ${SITE}walk/2`,
      leadsTo: `${SITE}walk/2`,
    });
  });
  it('a page whose scripts build nothing says so', () => {
    expect(pageAt('/nothing')?.rendered).toEqual({ failure: 'its scripts built nothing' });
  });
});
