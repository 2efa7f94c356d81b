/** Two states of a site, page by page. */
import { describe, expect, it } from 'vitest';
import type { Evidence, PageEvidence } from '#core/facts/evidence';
import { chain, dnsAnswer, evidence, host, HOME, page } from '#core/checks/example-evidence';
import { compareSites, type ComparedPage } from './compare-sites';

const LONG =
  'The choir sings on Mondays. It meets by the water, whatever the weather, and takes in new voices in spring and in autumn. ' +
  'Its songs come from the estuary, from ferries and from those who mended nets, and some were written last winter by two of the altos. ' +
  'Whoever wants to listen may come at eight, and whoever wants to sing at seven; the kettle is on from half past six.';
const at = (path: string, body: string, more: Partial<Parameters<typeof page>[0]> = {}): PageEvidence =>
  page({ url: HOME + path, via: path ? 'link' : 'home', body, ...more });
const site = (...pages: PageEvidence[]): Evidence => evidence({ pages });
const compared = (a: Evidence, b: Evidence) => compareSites({ evidence: a }, { evidence: b });
const only = (pages: ComparedPage[], kind: ComparedPage['kind']): ComparedPage[] =>
  pages.filter((p) => p.kind === kind);

describe('page by page', () => {
  it('the same is the same', () => {
    const { counts, ahead, site: changes } = compared(evidence(), evidence());
    expect(counts).toEqual({ added: 0, gone: 0, moved: 0, changed: 0, same: 3 });
    expect(ahead.side).toBe('neither');
    expect(changes).toEqual([]);
  });
  it('added, gone and moved pages are told apart: moved by what stands there', () => {
    const home = at('', '');
    const before = site(home, at('old/', `<p>${LONG}</p>`), at('gone/', '<p>Only here.</p>'));
    const after = site(home, at('new/', `<p>${LONG}</p>`), at('added/', '<p>Just come.</p>'));
    const { pages } = compared(before, after);
    expect(only(pages, 'moved').map((p) => [p.from, p.path])).toEqual([['/old/', '/new/']]);
    expect(only(pages, 'gone').map((p) => p.path)).toEqual(['/gone/']);
    expect(only(pages, 'added').map((p) => p.path)).toEqual(['/added/']);
  });
  it.each<[string, Partial<Parameters<typeof page>[0]>, string, string[], string[]]>([
    ['a title', { title: 'New' }, 'title', ['Marsh Choir'], ['New']],
    ['a description', { description: 'New' }, 'description', ['All songs'], ['New']],
    ['a heading', { body: '<h2>Dates</h2>' }, 'headings', [], ['h2 Dates']],
    ['a link', { body: '<a href="/dates/">Dates</a>' }, 'links', [], ['/dates/']],
    [
      'a link away',
      { body: '<a href="https://shoal.example/">x</a>' },
      'links',
      [],
      ['https://shoal.example/'],
    ],
    [
      'a form',
      { body: '<form action="/send" method="post"><input name="mail"></form>' },
      'forms',
      [],
      ['post /send: mail'],
    ],
    ['a script', { head: '<script src="/menu.js"></script>' }, 'scripts', [], ['/menu.js']],
    ['a picture', { body: '<img src="/a.png" alt="">' }, 'pictures', [], ['/a.png']],
    ['an icon', { head: '<link rel="icon" href="/i.png">' }, 'icons', [], ['/i.png']],
    [
      'structured data',
      { head: '<script type="application/ld+json">{"@type":"Event"}</script>' },
      'structured data',
      [],
      ['{"@type":"Event"}'],
    ],
    ['a robots meta', { head: '<meta name="robots" content="noindex">' }, 'robots', [], ['noindex']],
  ])('%s that changed is named, with what was and what is', (_, change, what, gone, added) => {
    const as = { title: 'Marsh Choir', description: 'All songs' };
    const { pages } = compared(site(at('', '', as)), site(at('', '', { ...as, ...change })));
    const difference = pages[0]!.differences.find((d) => d.what === what);
    expect(difference).toEqual({ what, gone, added });
  });
  it('a text by sentence', () => {
    const before = at('', '<p>The doors open at ten. Dogs may come in.</p>');
    const after = at('', '<p>The doors open at nine. Dogs may come in.</p>');
    const text = compared(site(before), site(after)).pages[0]!.differences.find((d) => d.what === 'text');
    expect(text).toEqual({
      what: 'text',
      gone: ['The doors open at ten.'],
      added: ['The doors open at nine.'],
    });
  });
  it('other bytes under the same name', () => {
    const e = (sha256: string): Evidence => ({
      ...site(at('', '<img src="/a.png" alt="">')),
      assets: [{ url: `${HOME}a.png`, roles: ['picture'], chain: chain([`${HOME}a.png`]), sha256 }],
    });
    expect(compared(e('aaaaaaaa1'), e('bbbbbbbb2')).pages[0]!.differences).toEqual([
      { what: 'pictures', gone: ['/a.png (aaaaaaaa)'], added: ['/a.png (bbbbbbbb)'] },
    ]);
  });
  it('what many pages lost or gained is said once', () => {
    const all = (foot: string, about = ''): Evidence =>
      site(
        at('', `<p>${foot}</p>`),
        at('about/', `<p>${about}</p><p>${foot}</p>`),
        at('a/', `<p>${foot}</p>`),
        at('b/', `<p>${foot}</p>`),
      );
    const { common, pages } = compared(all('Founded in 1950.'), all('Founded in 1951.', 'A new room.'));
    expect(common).toEqual([
      { what: 'text', kind: 'gone', line: 'Founded in 1950.', pages: 4 },
      { what: 'text', kind: 'added', line: 'Founded in 1951.', pages: 4 },
    ]);
    expect(pages.map((p) => [p.path, p.onlyCommon ?? p.differences])).toEqual([
      ['/', true],
      ['/a/', true],
      ['/about/', [{ what: 'text', gone: [], added: ['A new room.'] }]],
      ['/b/', true],
    ]);
  });
  it('a page that answers otherwise', () => {
    const gone = compared(site(at('', ''), at('a/', 'x')), site(at('', ''), at('a/', 'x', { status: 404 })));
    expect(only(gone.pages, 'gone').map((p) => p.path)).toEqual(['/a/']);
  });
  it('pages that the limit left unread are said', () => {
    expect(compared({ ...evidence(), unread: [`${HOME}x/`] }, evidence()).notes[0]).toMatch(/1 more pages/);
  });
});

describe('an environment before the live one', () => {
  const BASE = 'https://draft.host.example/choir/';
  const draft = (body: string, head = ''): Evidence => {
    const html = page({ url: BASE, via: 'home', head, body });
    const e = evidence({ pages: [html] });
    return {
      ...e,
      target: { ...e.target, url: BASE, hosts: ['draft.host.example'], kind: 'before' },
      hosts: [host('draft.host.example')],
    };
  };
  it('differs in hosts and in what search engines are told, which is set aside and said', () => {
    const count = '<script src="https://count.example/c.js" data-site="TM-1"></script>';
    const first = draft(
      '<a href="https://draft.host.example/choir/about/">About</a>',
      '<meta name="robots" content="noindex">',
    );
    const second = site(at('', `<a href="${HOME}about/">About</a>`, { head: count }));
    for (const e of [first, second]) {
      const [p] = e.pages;
      p!.facts!.text = 'The same words.';
      p!.facts!.titles = [];
      p!.facts!.metas = p!.facts!.metas.filter((m) => m.name !== 'description');
      p!.facts!.headings = [];
      p!.facts!.anchors = p!.facts!.anchors.slice(-1);
    }
    const { counts, setAside, site: changes } = compared(first, second);
    expect(counts.changed).toBe(0);
    expect(counts.same).toBe(1);
    expect(setAside.map((s) => s.what).sort()).toEqual([
      'hosts in addresses',
      'scripts that measure',
      'what keeps search engines out',
    ]);
    expect(changes.filter((c) => c.what !== 'header')).toEqual([]);
  });
});

describe('beside the pages', () => {
  it('a record, a certificate, a redirect, a header, robots.txt', () => {
    const before = evidence();
    const after = evidence({
      robots: { ...before.robots, text: 'User-agent: *\nDisallow: /\n' },
      hosts: [
        host('marsh-choir.example', {
          http: chain(['http://marsh-choir.example/', HOME], 200, undefined, 302),
        }),
        host('www.marsh-choir.example'),
      ],
    });
    after.dns.answers = [
      dnsAnswer('marsh-choir.example', 'A', ['192.0.2.99']),
      ...after.dns.answers.filter(
        (a) => a.role !== 'resolver' || a.type !== 'A' || a.name !== 'marsh-choir.example',
      ),
    ];
    after.hosts[0]!.tls.chain[0] = { ...after.hosts[0]!.tls.chain[0]!, notAfter: '2027-03-01T00:00:00Z' };
    after.pages[0] = {
      ...after.pages[0]!,
      chain: chain([HOME], 200, [
        ['Content-Type', 'text/html'],
        ['X-Frame-Options', 'DENY'],
      ]),
    };
    const { site: changes } = compared(before, after);
    expect(new Set(changes.map((c) => c.what))).toEqual(
      new Set(['record', 'certificate', 'header', 'robots.txt']),
    );
    expect(changes.find((c) => c.what === 'record')).toMatchObject({
      where: 'marsh-choir.example A',
      before: '192.0.2.10',
      after: '192.0.2.99',
    });
  });
});

describe('who is ahead', () => {
  const said = (text: string, headers?: [string, string][]): Evidence =>
    site(at('', `<p>${text}</p>`, headers ? { headers: [['Content-Type', 'text/html'], ...headers] } : {}));
  const [old, fresh] = [said('Open at ten.'), said('Open at nine.')];
  it('an earlier audit of the second saw what the first has still: the second has moved on', () => {
    expect(compareSites({ evidence: old }, { evidence: fresh, earlier: [old] }).ahead).toMatchObject({
      side: 'second',
      reason: '1 of 1 changed page: an earlier audit saw it as the first has it still',
    });
  });
  it('and the other way round', () => {
    expect(compareSites({ evidence: fresh, earlier: [old] }, { evidence: old }).ahead.side).toBe('first');
  });
  it('by Last-Modified', () => {
    const monday = said('Open at ten.', [['Last-Modified', 'Mon, 23 Nov 2026 08:00:00 GMT']]);
    const tuesday = said('Open at nine.', [['Last-Modified', 'Tue, 24 Nov 2026 08:00:00 GMT']]);
    expect(compared(monday, tuesday).ahead).toEqual({
      side: 'second',
      reason: '1 of 1 changed page: Last-Modified of 2026-11-24 is the later one',
    });
  });
  it('not told where nothing tells it', () => {
    expect(compared(old, fresh).ahead.side).toBe('unknown');
  });
  it('both, where each has a change of its own', () => {
    const two = (home: string, about: string): Evidence =>
      site(at('', `<p>${home}</p>`), at('about/', `<p>${about}</p>`));
    const first = two('New home.', 'Old about.');
    const second = two('Old home.', 'New about.');
    const before = two('Old home.', 'Old about.');
    const { ahead } = compareSites(
      { evidence: first, earlier: [before] },
      { evidence: second, earlier: [before] },
    );
    expect(ahead.side).toBe('both');
  });
});
