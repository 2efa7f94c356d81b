/** What a browser saw: errors, failing requests, phones, and whether it agrees with the plain page. */
import { describe, expect, it } from 'vitest';
import { extractPage } from '#core/extract/html';
import type { Evidence } from '#core/facts/evidence';
import type { RenderedView } from '#core/facts/rendered';
import {
  ask,
  brief,
  evidence,
  HOME,
  page,
  seenBy,
  withHtml,
  withPages,
  withSeen,
} from '#core/checks/example-evidence';

/** The home page on a desktop is seen so; all else is as it should be. */
const atHome = (change: Partial<RenderedView>): Evidence =>
  withSeen(({ url }, screen) => (url === HOME && screen === 'desktop' ? change : {}));
const judged = (check: string, e: Evidence) => {
  const { outcome, found, reason } = ask(check, { evidence: e });
  return `${outcome}: ${found ?? reason}`;
};

describe('without a browser', () => {
  const RENDERED = ['script-errors', 'requests-fail', 'phone-fits', 'layout-still', 'rendered-agrees'];
  it.each(RENDERED.map((id) => `delivery.${id}`))('%s cannot tell, and says why', (id) => {
    const { rendered: _, ...never } = evidence();
    expect(ask(id, { evidence: never })).toMatchObject({
      outcome: 'cantTell',
      reason: 'not rendered: no browser has looked at its pages yet',
    });
    const missing = { ...never, rendered: { missing: 'no browser here', pages: [] } };
    expect(ask(id, { evidence: missing }).reason).toBe('not rendered: no browser here');
  });
});

describe('delivery.script-errors', () => {
  const lost = { message: 'ReferenceError: openMenu is not defined', at: `${HOME}about/:12` };
  const missing = { url: 'https://count.example/c.js', type: 'script', error: 'ERR_TIMED_OUT' };
  it.each([
    ['none', {}, 'passed: 3 of 3 pages'],
    [
      'one of the page’s own',
      { errors: [lost] },
      'failed: 1 of 3 pages: ReferenceError: openMenu is not defined',
    ],
    [
      'one that may follow from a script that did not come',
      { errors: [lost], failed: [missing] },
      'cantTell: ReferenceError: openMenu is not defined',
    ],
    [
      'another one beside a script that did not come',
      { errors: [{ message: 'Error: no room' }], failed: [missing] },
      'failed: 1 of 3 pages: Error: no room',
    ],
    [
      'one in a foreign script after a stopped visit',
      { errors: [{ message: 'Error: bad answer', at: 'https://count.example/c.js:1' }] },
      'cantTell: Error: bad answer',
    ],
  ])('%s', (_, change, wanted) => {
    expect(judged('delivery.script-errors', atHome(change))).toBe(wanted);
  });
  it('a page that could not be shown on one screen is undecided, unless it fails on the other', () => {
    const broken = withSeen((_, screen) => (screen === 'phone' ? { failure: 'it took too long' } : {}));
    expect(ask('delivery.script-errors', { evidence: broken })).toMatchObject({
      outcome: 'cantTell',
      reason: '3 of 3 pages: not rendered on a phone: it took too long',
    });
    const both = withSeen((_, screen) =>
      screen === 'phone' ? { failure: 'it took too long' } : { errors: [lost] },
    );
    expect(ask('delivery.script-errors', { evidence: both }).outcome).toBe('failed');
  });
});

describe('delivery.requests-fail', () => {
  const failing = (path: string, status: number) => ({ url: HOME + path, type: 'fetch', status });
  it.each([
    ['of another host', { failed: [{ ...failing('', 404), url: 'https://cdn.example/a.js' }] }, 'passed'],
    ['that is gone', { failed: [failing('hours.json', 404)] }, 'failed'],
    ['that does not come', { failed: [{ url: `${HOME}a.png`, type: 'image', error: 'reset' }] }, 'failed'],
    ['that is refused', { failed: [failing('hours.json', 403)] }, 'cantTell'],
    ['refused beside one that is gone', { failed: [failing('a', 429), failing('b', 500)] }, 'failed'],
  ])('a request %s', (_, change, wanted) => {
    expect(ask('delivery.requests-fail', { evidence: atHome(change) }).outcome).toBe(wanted);
  });
});

describe('delivery.phone-fits', () => {
  it('names what sticks out', () => {
    const e = withSeen({
      layout: { width: 390, sideways: 510, wide: [{ element: 'table', right: 900 }], small: [] },
    });
    const found = ask('delivery.phone-fits', { evidence: e });
    expect(found.places[0]!.found).toBe('510 px wider than the screen: table reaches to 900 px');
    expect(found.recipe!.paste![0]!.text).toContain('max-width');
  });
  it('a page without a viewport rests on the check of that', () => {
    const bare = page({ url: HOME, via: 'home' });
    const facts = { ...bare.facts!, metas: bare.facts!.metas.filter((m) => m.name !== 'viewport') };
    expect(ask('delivery.phone-fits', { evidence: withPages({ ...bare, facts }) }).reason).toBe(
      'rests on metadata.viewport: the page is laid out for another screen',
    );
  });
});

describe('delivery.rendered-agrees', () => {
  const rendering = (html: string): Evidence => atHome({ facts: extractPage(html, HOME) });
  const plain = (head: string): string =>
    `<html><head><title>Songs</title><meta name="description" content="All songs">${head}</head><body><p>Songs by the water, on Mondays, whatever the weather.</p></body></html>`;
  it.each([
    ['the same', plain(''), 'passed'],
    ['other white space', plain('').replace('All songs', ' All  songs '), 'passed'],
    ['another title', plain('').replace('<title>Songs', '<title>Welcome'), 'failed'],
    ['no description', plain('').replace('name="description"', 'name="x"'), 'failed'],
    ['a canonical', plain('<link rel="canonical" href="/songs/">'), 'failed'],
    ['a noindex', plain('<meta name="robots" content="noindex">'), 'failed'],
    ['a robots meta in capitals', plain('<meta name="robots" content="NOINDEX">'), 'failed'],
  ])('%s', (_, html, wanted) => {
    const e = rendering(html);
    const home = e.pages[0]!;
    const asSent = { ...e, pages: [{ ...home, facts: extractPage(plain(''), HOME) }] };
    expect(ask('delivery.rendered-agrees', { evidence: asSent }).outcome).toBe(wanted);
  });
  it('says what each has', () => {
    const e = withSeen(({ url }) => ({ facts: extractPage('<title>Welcome</title>', url) }));
    const place = ask('delivery.rendered-agrees', { evidence: e }).places[0]!;
    expect(place.expected).toContain('title “Marsh Choir – songs by the water”');
    expect(place.found).toContain('title “Welcome”, description nothing');
  });
  it('a page that scripts lead away from is undecided', () => {
    expect(judged('delivery.rendered-agrees', atHome({ url: `${HOME}welcome/` }))).toMatch(
      /^cantTell: 1 of 3 pages: scripts lead the browser on/,
    );
  });
});

describe('pages that scripts build', () => {
  const SHELL = '<title>Songs</title><div id="app"></div><script src="/app.js"></script>';
  const built = `<title>Songs</title><div id="app"><h1>Songs</h1><p>Songs by the water, on Mondays, whatever the weather.</p><img src="a.png"></div>`;
  const shown = (rendered: boolean): Evidence => {
    const e = withHtml(SHELL);
    const pages = e.pages.slice(0, 1);
    const facts = extractPage(built, HOME);
    return { ...e, pages, ...(rendered ? { rendered: seenBy(pages, { facts }) } : {}) };
  };
  it('are undecided without a browser', () => {
    expect(ask('metadata.image-text', { evidence: shown(false) }).outcome).toBe('cantTell');
  });
  it('are judged by what it showed, which the finding says', () => {
    expect(ask('metadata.image-text', { evidence: shown(true) })).toMatchObject({
      outcome: 'failed',
      notes: ['1 page that scripts build: judged as a browser showed it.'],
    });
  });
  it('a browser that saw some of the pages decides for that share', () => {
    const e = evidence();
    const some = { ...e, rendered: seenBy(e.pages.slice(0, 1)) };
    const found = ask('delivery.script-errors', { evidence: some });
    expect(found.seen).toEqual({ read: 1, known: 3 });
    expect(found.notes).toEqual(['A browser looked at 1 of 3 pages.']);
  });
});

describe('verification.nothing-before-consent', () => {
  const asking = { ...brief(), consentScript: '/ask.js', necessaryCookies: ['choir_*'] };
  const cookie = (name: string) => ({
    name,
    domain: 'marsh-choir.example',
    secure: true,
    httpOnly: true,
    sameSite: 'Lax',
    session: true,
  });
  const hit = { url: 'https://count.example/hit?site=TM-1', id: 'TM-1' };
  const nothing: Partial<RenderedView> = { hits: [] };
  it.each([
    ['nothing at all', nothing, 'passed'],
    ['a hit', { hits: [hit] }, 'failed'],
    ['a beacon that names no ID', { hits: [{ url: 'https://log.example/errors' }] }, 'cantTell'],
    ['a hit after consent', { hits: [{ ...hit, afterConsent: true as const }] }, 'passed'],
    ['a necessary cookie', { hits: [], cookies: [cookie('choir_session')] }, 'passed'],
    ['another cookie', { hits: [], cookies: [cookie('visitor')] }, 'failed'],
    [
      'another cookie after consent',
      { hits: [], cookies: [cookie('visitor')], beforeConsent: { cookies: [], storage: [] } },
      'passed',
    ],
  ])('%s', (_, change, wanted) => {
    expect(
      ask('verification.nothing-before-consent', { evidence: withSeen(change), brief: asking }).outcome,
    ).toBe(wanted);
  });
  it.each([
    ['of a known counter', '_ga_ABC', 'failed'],
    ['of something else', 'visitor', 'cantTell'],
  ])('where the brief lists none, a cookie %s', (_, name, wanted) => {
    const { necessaryCookies: __, ...unlisted } = asking;
    const e = withSeen({ hits: [], cookies: [cookie(name)] });
    expect(ask('verification.nothing-before-consent', { evidence: e, brief: unlisted }).outcome).toBe(wanted);
  });
  it('is untested where the brief knows of no consent', () => {
    expect(ask('verification.nothing-before-consent').outcome).toBe('untested');
  });
});

describe('verification.hits-seen', () => {
  const hit = { url: 'https://count.example/hit?site=TM-1', id: 'TM-1' };
  const view = { ...hit, event: 'page_view' };
  it.each([
    ['one a page', { hits: [hit] }, 'passed'],
    ['one view, and one of something done', { hits: [view, { ...hit, event: 'scroll' }] }, 'passed'],
    ['two views', { hits: [view, view] }, 'failed'],
    ['two without a name', { hits: [hit, hit] }, 'failed'],
    ['none', { hits: [] }, 'cantTell'],
    ['one of another ID', { hits: [{ ...hit, id: 'TM-2' }] }, 'cantTell'],
  ])('%s', (_, change, wanted) => {
    expect(ask('verification.hits-seen', { evidence: withSeen(change) }).outcome).toBe(wanted);
  });
  const silent = withSeen({ hits: [] });
  it.each([
    ['the click is not known', { consentScript: '/ask.js' }, silent, /does not say what visitors click/],
    [
      'the click is not found',
      { consentScript: '/ask.js', consentClick: 'Yes' },
      withSeen({ hits: [], consent: 'not found' }),
      /nothing on the page is “Yes”/,
    ],
    [
      'the counter did not come',
      {},
      withSeen({ hits: [], failed: [{ url: 'https://count.example/c.js', type: 'script', error: 'x' }] }),
      /a script of count.example did not come/,
    ],
    ['it is a tag manager', { analyticsIds: ['GTM-ABC123'] }, silent, /names a tag manager/],
  ])('cannot tell where %s', (_, more, e, why) => {
    const found = ask('verification.hits-seen', { evidence: e, brief: { ...brief(), ...more } });
    expect(found.outcome).toBe('cantTell');
    expect(found.reason).toMatch(why);
  });
  it('is decided by a person where it cannot tell, and only there', () => {
    const said = { check: 'verification.hits-seen', by: 'Mara', at: '2026-11-20T00:00:00Z', done: true };
    expect(ask('verification.hits-seen', { evidence: silent, attestations: [said] })).toMatchObject({
      outcome: 'passed',
      attestable: true,
    });
    const twice = withSeen({ hits: [hit, hit] });
    expect(ask('verification.hits-seen', { evidence: twice, attestations: [said] }).outcome).toBe('failed');
  });
});
