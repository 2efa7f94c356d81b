/** What a yes is to: which changes of a site count, which may be nothing, and which are none. */
import { formatMessage } from '#core/text/messages';
import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import type { Evidence, PageEvidence } from '#core/facts/evidence';
import { SiteView } from '#core/checks/view/site-view';
import { asset, brief, evidence, HOME, page } from '#core/checks/example-evidence';
import { changesSince, contentOf, fingerprintOf, type Content } from './content';

const ABOUT = `${HOME}about/`;
const contentFrom = (e: Evidence, hosts?: ReadonlySet<string>): Content =>
  contentOf(new SiteView(e, brief(), { name: '' }, e.target.kind === 'live' ? 'live' : 'staging'), hosts);
const withAbout = (body: string, more: Partial<Evidence> = {}): Evidence => {
  const e = evidence(more);
  return { ...e, pages: e.pages.map((p) => (p.url === ABOUT ? page({ url: ABOUT, body }) : p)) };
};
const changes = (before: Evidence, after: Evidence, across = false): string[] =>
  changesSince(contentFrom(before), contentFrom(after), across).map(
    ({ path, what, isSure, why }) =>
      `${isSure ? '' : '? '}${path} ${formatMessage(what)}${why ? `: ${formatMessage(why)}` : ''}`,
  );

describe('the same environment', () => {
  const FIGURES = 'only figures or dates differ, which may move by themselves';
  it.each([
    ['nothing', '<p>One</p>', '<p>One</p>', []],
    ['another word', '<p>One song</p>', '<p>One psalm</p>', ['/about/ text']],
    ['another heading', '<h2>Songs</h2>', '<h2>Dates</h2>', ['/about/ headings, text']],
    ['a figure', '<p>Seats left: 12</p>', '<p>Seats left: 9</p>', [`? /about/ text: ${FIGURES}`]],
    ['a date', '<p>Monday, 3 March</p>', '<p>Tuesday, 14 April</p>', [`? /about/ text: ${FIGURES}`]],
    ['a date in German', '<p>3. März 2026</p>', '<p>17. Oktober 2027</p>', [`? /about/ text: ${FIGURES}`]],
    ['a price and a word', '<p>£40 a seat</p>', '<p>£45 a head</p>', ['/about/ text']],
    ['a link', '<a href="/a/">x</a>', '<a href="/b/">x</a>', ['/about/ links']],
    ['a picture', '<img src="/a.png" alt="x">', '<img src="/b.png" alt="x">', ['/about/ pictures']],
    ['a script', '<script src="/a.js"></script>', '<script src="/b.js"></script>', []],
    [
      'a form field',
      '<form action="/go"><input name="a"></form>',
      '<form action="/go"><input name="b"></form>',
      ['/about/ forms'],
    ],
  ])('%s', (_, before, after, wanted) => {
    expect(changes(withAbout(before), withAbout(after))).toEqual(wanted);
  });
  it('other bytes under the same name are another picture; bytes that were not read are none', () => {
    const body = '<img src="/a.png" alt="x">';
    const bytes = (sha256?: string): Evidence =>
      withAbout(body, { assets: [asset('a.png', { roles: ['picture'], ...(sha256 ? { sha256 } : {}) })] });
    expect(changes(bytes('one'), bytes('two'))).toEqual(['/about/ pictures']);
    expect(changes(bytes('one'), bytes())).toEqual([]);
    expect(changes(bytes(), bytes('two'))).toEqual([]);
  });
  it('a page more, a page less', () => {
    const e = evidence();
    const more = { ...e, pages: [...e.pages, page({ url: `${HOME}new/` })] };
    const less = { ...e, pages: e.pages.filter((p) => p.url !== ABOUT) };
    expect(changes(e, more)).toEqual(['/new/ a new page']);
    expect(changes(e, less)).toEqual(['/about/ the page is gone']);
  });
  it('a page that could not be read, or was left out by the page limit, is a doubt', () => {
    const e = evidence();
    const instead = (p: PageEvidence): Evidence => ({
      ...e,
      pages: e.pages.map((one) => (one.url === ABOUT ? p : one)),
    });
    const busy = page({ url: ABOUT, status: 503 });
    expect(changes(e, instead(busy))).toEqual(['? /about/ the page is gone: it could not be read this time']);
    expect(changes(e, instead(page({ url: ABOUT, status: 404 })))).toEqual(['/about/ the page is gone']);
    // what was not seen before is no new page
    expect(changes(instead(busy), e)).toEqual([]);
    const partial = { ...e, pages: e.pages.filter((p) => p.url !== ABOUT), unread: [ABOUT] };
    expect(changes(e, partial)).toEqual(['? /about/ the page is gone: not all pages were read this time']);
    expect(changes(partial, e)).toEqual([
      '? /about/ a new page: it was not among the pages that the client was shown',
    ]);
  });
});

describe('across environments', () => {
  const ACROSS = 'servers of two environments may give it differently';
  it('words count, and what servers write around them is a doubt', () => {
    const of = (body: string): Evidence => withAbout(body);
    expect(changes(of('<p>One</p>'), of('<p>Two</p>'), true)).toEqual(['/about/ text']);
    expect(changes(of('<a href="/a/">x</a>'), of('<a href="/b/">x</a>'), true)).toEqual([
      `? /about/ links: ${ACROSS}`,
    ]);
  });
  it('hosts are set aside', () => {
    const live = evidence();
    const draft = 'https://draft.host.example/';
    const pages = live.pages.map((p) => page({ url: p.url.replace(HOME, draft), via: p.via }));
    const staging: Evidence = {
      ...live,
      pages: pages.map((p, i) => ({ ...p, facts: { ...p.facts!, titles: live.pages[i]!.facts!.titles } })),
      target: { ...live.target, url: draft, hosts: ['draft.host.example'], kind: 'before' },
    };
    const hosts = new Set([...live.target.hosts, 'draft.host.example']);
    const found = changesSince(contentFrom(staging, hosts), contentFrom(live, hosts), true);
    expect(found.filter((c) => c.isSure && !/description|text/.test(formatMessage(c.what)))).toEqual([]);
  });
});

describe('the fingerprint', () => {
  it('is SHA-256 as Node has it, the same for the same content, another for another', () => {
    const one = fingerprintOf(contentFrom(evidence()));
    expect(one).toMatch(/^[0-9a-f]{64}$/);
    expect(fingerprintOf(contentFrom(evidence()))).toBe(one);
    expect(fingerprintOf(contentFrom(withAbout('<p>More</p>')))).not.toBe(one);
    // an empty site is the digest of an empty list
    const empty: Content = { pages: new Map(), refused: new Set(), missing: new Set(), isPartial: false };
    expect(fingerprintOf(empty)).toBe(createHash('sha256').update('[]').digest('hex'));
  });
  it('leaves out what is not content: times, records, headers, order of the pages', () => {
    const e = evidence();
    const other: Evidence = {
      ...e,
      startedAt: '2027-01-01T00:00:00.000Z',
      pages: [...e.pages].reverse(),
      dns: { ...e.dns, answers: [] },
    };
    expect(fingerprintOf(contentFrom(other))).toBe(fingerprintOf(contentFrom(e)));
  });
});
