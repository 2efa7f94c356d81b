/** Metadata: titles, descriptions, headings, names of controls, structured data. */
import { describe, expect, it } from 'vitest';
import { textWidth } from '#core/text/width';
import {
  ask,
  brief,
  HOME as home,
  outcome as out,
  page,
  withHome,
  withHtml,
  withPages,
} from '#core/checks/example-evidence';
import { refreshDelay } from '#core/checks/catalogue/metadata/no-refresh';

describe('metadata', () => {
  it('one title, in the head', () => {
    expect(out('metadata.title-present', { title: null })).toBe('failed');
    expect(out('metadata.title-present', { title: ' ' })).toBe('failed');
    expect(out('metadata.title-present', { head: '<title>second</title>' })).toBe('failed');
  });
  it('one description', () => {
    expect(out('metadata.description-present', { description: null })).toBe('failed');
    expect(out('metadata.description-present', { description: '' })).toBe('failed');
    expect(out('metadata.description-present', { head: '<meta name="description" content="b">' })).toBe(
      'failed',
    );
  });
  describe('texts that are written for failing pages are there to paste, before those that are made up', () => {
    const LONG = 'A very long title '.repeat(12);
    const pages = withPages(
      page({ url: home, via: 'home', title: LONG, description: LONG.repeat(3) }),
      page({ url: `${home}b/`, title: LONG, description: LONG.repeat(3) }),
      page({ url: `${home}c/`, title: null, description: null }),
    );
    const intended = [
      { path: '/', title: 'Home & more', description: 'Of the home page' },
      { path: '/c/', title: 'The third', description: 'Of the third page' },
    ];
    const HOME_TITLE = '<title>Home &amp; more</title>';
    const HOME_TEXT = '<meta name="description" content="Of the home page">';
    it.each([
      ['metadata.title-length', [HOME_TITLE, '<title>/b/ – Marsh Choir</title>']],
      ['metadata.title-unique', [HOME_TITLE]],
      ['metadata.description-length', [HOME_TEXT]],
      ['metadata.description-unique', [HOME_TEXT]],
      ['metadata.title-present', ['<title>The third</title>']],
      ['metadata.description-present', ['<meta name="description" content="Of the third page">']],
    ])('%s', (check, paste) => {
      const { outcome, recipe } = ask(check, { evidence: pages, intended });
      expect(outcome).toBe('failed');
      expect(recipe!.paste!.map((p) => p.text)).toEqual(paste);
      const without = ask(check, { evidence: pages }).recipe!.paste ?? [];
      expect(without.map((p) => p.text)).not.toEqual(paste);
    });
    it.each([
      ['identity.no-default-title', { title: 'Untitled page' }, HOME_TITLE],
      ['identity.no-default-tagline', { description: 'Just another site' }, HOME_TEXT],
      ['identity.title-names-site', { title: 'Somebody else' }, HOME_TITLE],
      ['metadata.description-names-site', { description: 'Of somebody else' }, HOME_TEXT],
    ])('%s', (check, texts, paste) => {
      const evidence = withPages(page({ url: home, via: 'home', ...texts }));
      const { outcome, recipe } = ask(check, { evidence, intended });
      expect(outcome).toBe('failed');
      expect(recipe!.paste![0]!.text).toBe(paste);
    });
  });
  it('unique among canonical pages; other languages and copies that name the original do not count', () => {
    const same = (head: string) =>
      withPages(
        page({ url: home, via: 'home', title: 'Same', head }),
        page({ url: `${home}b`, title: 'Same', head }),
      );
    expect(ask('metadata.title-unique', { evidence: same('') }).outcome).toBe('failed');
    expect(
      ask('metadata.title-unique', { evidence: same(`<link rel="canonical" href="${home}">`) }).outcome,
    ).toBe('passed');
    expect(
      ask('metadata.title-unique', {
        evidence: same(
          `<link rel="alternate" hreflang="de" href="${home}b"><link rel="alternate" hreflang="en" href="${home}">`,
        ),
      }).outcome,
    ).toBe('passed');
  });
  describe('pages of one series may share a title, other pages with a number may not', () => {
    const pair = (a: string, b: string) =>
      ask('metadata.title-unique', {
        evidence: withPages(
          page({ url: home, via: 'home', title: 'Home' }),
          page({ url: home + a, title: 'News' }),
          page({ url: home + b, title: 'News' }),
        ),
      }).outcome;
    it.each([
      ['news/', 'news/page/2/', 'passed'],
      ['news', 'news?page=3', 'passed'],
      ['news?a=1', 'news?page=2&a=1', 'passed'],
      ['news/', 'notes/page/2/', 'failed'],
      ['item?id=1', 'item?id=2', 'failed'],
    ])('%s, %s: %s', (a, b, wanted) => {
      expect(pair(a, b)).toBe(wanted);
    });
  });
  describe('viewport: zoom to 200 % stays possible (WCAG 1.4.4)', () => {
    const judged = (content: string) => {
      const p = page({ url: home, via: 'home' });
      p.facts!.metas = p.facts!.metas.map((m) => (m.name === 'viewport' ? { ...m, content } : m));
      return ask('metadata.viewport', { evidence: withPages(p) }).outcome;
    };
    it.each([
      ['width=device-width', 'passed'],
      ['width=device-width, maximum-scale=2', 'passed'],
      ['width=device-width, maximum-scale=1.9', 'failed'],
      ['width=device-width,user-scalable=no', 'failed'],
      ['width=980', 'failed'],
    ])('%s: %s', (content, wanted) => {
      expect(judged(content)).toBe(wanted);
    });
  });
  it('charset, headings, pictures', () => {
    expect(
      ask('metadata.charset', {
        evidence: withPages({ ...page({ url: home, via: 'home' }), charset: 'windows-1252' }),
      }).outcome,
    ).toBe('failed');
    expect(out('metadata.one-main-heading', { body: '<h1>again</h1>' })).toBe('failed');
    expect(out('metadata.image-text', { body: '<img src=a>' })).toBe('failed');
    expect(out('metadata.image-text', { body: '<img src=a alt="">' })).toBe('passed');
    expect(out('metadata.image-text', {})).toBe('inapplicable');
  });
});

describe('metadata: lengths', () => {
  describe('titles: 15 to 60 characters and 560 px at 20 px', () => {
    const t = (title: string) =>
      ask('metadata.title-length', { evidence: withPages(page({ url: home, via: 'home', title })) }).outcome;
    const widest = Math.floor(560 / textWidth('m', 20));
    it.each([
      ['a'.repeat(14), 'failed'],
      ['a'.repeat(15), 'passed'],
      ['i'.repeat(60), 'passed'],
      ['i'.repeat(61), 'failed'],
      ['W'.repeat(30), 'failed'],
      ['日本語の合唱団', 'passed'],
      ['m'.repeat(widest), 'passed'],
      ['m'.repeat(widest + 1), 'failed'],
      ['日'.repeat(29), 'failed'],
    ])('%s: %s', (title, wanted) => {
      expect(t(title)).toBe(wanted);
    });
  });
  describe('descriptions: 80 to 150 characters, 900 px at 14 px, and the host’s limit', () => {
    const d = (n: number, letter = 'i', descriptionLimit?: number) =>
      ask('metadata.description-length', {
        evidence: withPages(page({ url: home, via: 'home', description: letter.repeat(n) })),
        profile: { name: 'F', descriptionLimit },
      }).outcome;
    it.each([
      [79, undefined, undefined, 'failed'],
      [80, undefined, undefined, 'passed'],
      [150, undefined, undefined, 'passed'],
      [151, undefined, undefined, 'failed'],
      [100, 'W', undefined, 'failed'],
      [120, 'i', 119, 'failed'],
      [119, 'i', 119, 'passed'],
    ])('%s, %s, %s: %s', (n, letter, descriptionLimit, wanted) => {
      expect(d(n, letter, descriptionLimit)).toBe(wanted);
    });
  });
  it('parameters move the thresholds', () => {
    expect(
      ask('metadata.title-length', {
        evidence: withPages(page({ url: home, via: 'home', title: 'Short' })),
        parameters: { least: 5 },
      }).outcome,
    ).toBe('passed');
  });
});

describe('metadata: what pages say', () => {
  describe('the home description says the name, and one of the phrases', () => {
    const d = (check: string, description: string | null, title?: string) =>
      out(
        check,
        { description, ...(title ? { title } : {}) },
        { keyPhrases: ['songs by the water', 'choir'] },
      );
    it.each([
      ['metadata.description-names-site', 'At the MÁRSH choir we sing', undefined, 'passed'],
      ['metadata.description-names-site', 'We sing', undefined, 'failed'],
      ['metadata.description-names-site', null, undefined, 'cantTell'],
      ['metadata.key-phrases', 'A Choir for all', undefined, 'passed'],
      ['metadata.key-phrases', 'We sing', undefined, 'failed'],
      ['metadata.key-phrases', 'A choir', 'Home of singers', 'failed'],
    ])('%s, %s, %s: %s', (check, description, title, wanted) => {
      expect(d(check, description, title)).toBe(wanted);
    });
  });
  describe('no default shows through: the home page’s, the name alone, the tagline, the host’s', () => {
    const judged = (title: string, description: string) =>
      ask('metadata.not-inherited', {
        evidence: withPages(
          page({ url: home, via: 'home', title: 'Marsh Choir – songs', description: 'Home text' }),
          page({ url: `${home}a/`, title, description }),
        ),
        brief: { ...brief(), tagline: 'Songs by the water' },
        profile: { name: 'F', defaults: { titles: ['First stone'], texts: ['Ready to grow'] } },
      }).outcome;
    it.each([
      ['About – Marsh Choir', 'About us', 'passed'],
      ['Marsh Choir – songs', 'About us', 'failed'],
      ['MARSH CHOIR', 'x', 'failed'],
      ['About', 'Home text', 'failed'],
      ['About', 'Songs by the water', 'failed'],
      ['First stone', 'x', 'failed'],
      ['About', 'Ready to grow', 'failed'],
    ])('%s, %s: %s', (title, description, wanted) => {
      expect(judged(title, description)).toBe(wanted);
    });
  });
  describe('headings step down one level at a time (G141)', () => {
    const h = (body: string) => out('metadata.heading-order', { body });
    it.each([
      ['<h2>a</h2><h3>b</h3><h2>c</h2>', 'passed'],
      ['<h3>a</h3>', 'failed'],
      ['<h2>a</h2><h4>b</h4>', 'failed'],
      ['<h2>a</h2><h3>b</h3><h4>c</h4><h1>d</h1>', 'passed'],
    ])('%s: %s', (body, wanted) => {
      expect(h(body)).toBe(wanted);
    });
  });
  describe('controls have names (WCAG 4.1.2)', () => {
    const c = (body: string) => out('metadata.control-names', { body });
    it.each([
      ['<button>Send</button>', 'passed'],
      ['<button></button>', 'failed'],
      ['<a href="/x"><img src=a alt=""></a>', 'failed'],
      ['<a href="/x"><img src=a alt="Songs"></a>', 'passed'],
      ['<input name=q placeholder=Search>', 'failed'],
      ['<label>Name <input></label>', 'passed'],
      ['<label for=n>Name</label><input id=n>', 'passed'],
      ['<input aria-label=Name>', 'passed'],
      ['<input type=hidden>', 'passed'],
      ['<input type=submit>', 'passed'],
    ])('%s: %s', (body, wanted) => {
      expect(c(body)).toBe(wanted);
    });
  });
  describe('structured data parse, with type and context (JSON-LD 1.1)', () => {
    const ld = (text: string) =>
      out('metadata.structured-data', { head: `<script type="application/ld+json">${text}</script>` });
    it.each([
      ['{"@context":"https://schema.org","@type":"Event"}', 'passed'],
      ['{"@context":"https://schema.org","@type":"Event",}', 'failed'],
      ['{"@type":"Event"}', 'failed'],
      ['{"@context":"https://schema.org"}', 'failed'],
      ['{"@context":"https://schema.org","@graph":[{"@type":"A"},{"@type":"B"}]}', 'passed'],
      ['[]', 'failed'],
    ])('%s: %s', (text, wanted) => {
      expect(ld(text)).toBe(wanted);
    });
    it('no structured data', () => {
      expect(out('metadata.structured-data', { head: '' })).toBe('inapplicable');
    });
  });
  // HTML, shared declarative refresh steps
  it.each([
    ['0', 0],
    ['5', 5],
    ['0;url=/x', 0],
    ['3; URL=/x', 3],
    ['2.9,/x', 2],
    ['', undefined],
    ['soon', undefined],
    ['-1', undefined],
    [' 10 ', 10],
  ])('a refresh of “%s” waits %s', (content, delay) => {
    expect(refreshDelay(content)).toBe(delay);
  });
  describe('no reload by itself', () => {
    const r = (content: string) =>
      out('metadata.no-refresh', { head: `<meta http-equiv="refresh" content="${content}">` });
    it.each([
      ['0;url=/x', 'passed'],
      ['1', 'failed'],
      ['30;url=/', 'failed'],
    ])('%s: %s', (content, wanted) => {
      expect(r(content)).toBe(wanted);
    });
  });
});

describe('headings by their role (WAI-ARIA 1.2)', () => {
  const judged = (html: string) => ask('metadata.one-main-heading', { evidence: withHtml(html) }).outcome;
  it.each([
    ['of level 1', '<div role="heading" aria-level="1">Kites</div>', 'passed'],
    ['of no level, which is 2', '<div role="heading">Kites</div>', 'failed'],
    ['that takes the place of another level', '<h3 role="heading" aria-level="1">Kites</h3>', 'passed'],
    ['an element whose role is another', '<h1 role="presentation">Kites</h1>', 'failed'],
  ])('%s', (_, body, wanted) => {
    expect(judged(`<title>Kites</title>${body}<p>words`)).toBe(wanted);
  });
});

it('a description in the body counts (docs/decisions)', () => {
  const html =
    '<title>Kites</title><body><meta name="description" content="Kites of all sizes."><h1>Kites</h1>';
  expect(ask('metadata.description-present', { evidence: withHtml(html) }).outcome).toBe('passed');
});

describe('what the standards allow in a page', () => {
  const judged = (check: string, html: string) => ask(check, { evidence: withHtml(html) }).outcome;
  it.each([
    ['width=device-width initial-scale=1', 'passed'],
    ['width=device-width; initial-scale=1.0;', 'passed'],
    ['width = device-width , initial-scale = 1', 'passed'],
    ['initial-scale=1', 'passed'],
    ['initial-scale=0.5', 'failed'],
    ['width=600, initial-scale=1', 'failed'],
    ['initial-scale=1, user-scalable=no', 'failed'],
    ['width=device-width, user-scalable=0', 'failed'],
    ['width=device-width user-scalable=no', 'failed'],
    ['width=device-width, user-scalable=1', 'passed'],
    ['width=device-width, maximum-scale=1.5', 'failed'],
    ['width=device-width, maximum-scale=yes', 'failed'],
    ['width=device-width, maximum-scale=-1', 'passed'],
    ['width=device-width, maximum-scale=5.0', 'passed'],
    ['width=980, width=device-width', 'passed'],
  ])('viewport “%s” (CSS Viewport, parsing algorithm): %s', (content, wanted) => {
    expect(judged('metadata.viewport', `<meta name=viewport content="${content}">`)).toBe(wanted);
  });
  it.each([
    ['a picture with a text', '<h1><img src=l.png alt="Marsh Choir"></h1>', 'passed'],
    ['a drawing with a title', '<h1><svg><title>Marsh Choir</title></svg></h1>', 'passed'],
    ['a label', '<h1 aria-label="Marsh Choir"></h1>', 'passed'],
    ['a picture without', '<h1><img src=l.png alt=""></h1>', 'failed'],
  ])('a main heading of %s', (_, html, wanted) => {
    expect(judged('metadata.one-main-heading', html)).toBe(wanted);
  });
  // W3C Accessible Name and Description Computation 1.2, steps 2B to 2F; HTML-AAM 4.1
  it.each([
    ['labelled by nothing', '<form><input aria-labelledby="gone"></form>', 'failed'],
    ['labelled by an empty element', '<form><b id=a></b><input aria-labelledby="a"></form>', 'failed'],
    ['labelled by a text', '<form><b id=a>Mail</b><input aria-labelledby="gone a"></form>', 'passed'],
    ['labelled by a text further down', '<form><input aria-labelledby="a"><b id=a>Mail</b></form>', 'passed'],
    ['an empty label', '<form><label for=a></label><input id=a></form>', 'failed'],
    [
      'a label with a picture',
      '<form><label for=a><img alt="Mail" src=m.png></label><input id=a></form>',
      'passed',
    ],
    ['inside an empty label', '<form><label><input></label></form>', 'failed'],
    ['inside a label', '<form><label>Mail <input></label></form>', 'passed'],
    [
      'inside a label with nothing but its choice',
      '<form><label><select><option>A</select></label></form>',
      'failed',
    ],
    ['a link labelled by nothing', '<a href="/x" aria-labelledby="gone"></a>', 'failed'],
    [
      'a button labelled by a text',
      '<p id=t>Send</p><form><button aria-labelledby=t></button></form>',
      'passed',
    ],
  ])('a control %s', (_, html, wanted) => {
    expect(judged('metadata.control-names', html)).toBe(wanted);
  });
});

describe('the redirect in the place of a refresh', () => {
  const paste = (content: string) =>
    ask('metadata.no-refresh', {
      evidence: withHome({ head: `<meta http-equiv="refresh" content="${content}">` }),
    }).recipe!.paste?.map((p) => p.text);
  it('leads where the tag led', () =>
    expect(paste('5; url=/songs/')).toEqual([
      'location = "/" { return 301 /songs/; }',
      'RedirectMatch 301 "^/$" "/songs/"',
    ]));
  it('is none where the page shows itself anew', () => expect(paste('30')).toBeUndefined());
});
