import { describe, expect, it } from 'vitest';
import { ask, brief, page, withHome, withHtml, withPages } from '#core/checks/example-evidence';
import { validLanguageTag } from '#core/checks/kit/language-tag';
import { e164 } from './phone';

const home = 'https://marsh-choir.example/';

describe('identity.language', () => {
  // valid tags of RFC 5646 appendix A; then its invalid ones, and the UK that is no region
  it.each([
    'de',
    'fr',
    'ja',
    'zh-Hant',
    'sr-Latn-RS',
    'sl-rozaj',
    'de-CH-1901',
    'hy-Latn-IT-arevela',
    'en-US',
    'es-419',
    'zh-cmn-Hans-CN',
  ])('%s is valid', (tag) => {
    expect(validLanguageTag(tag)).toBe(true);
  });
  it.each(['de-419-DE', 'a-DE', 'en-UK', 'xx-YY', 'english', ''])('%s is not', (tag) => {
    expect(validLanguageTag(tag)).toBe(false);
  });
});

describe('a page’s lang against what else says its language', () => {
  const at = (path: string, lang: string, ...alternates: [hreflang: string, path: string][]) => {
    const url = `${home.slice(0, -1)}${path}`;
    const links = alternates
      .map(
        ([hreflang, to]) => `<link rel="alternate" hreflang="${hreflang}" href="${home.slice(0, -1)}${to}">`,
      )
      .join('');
    const read = page({ url, head: links });
    read.facts!.lang!.value = lang;
    return ask('identity.language', {
      brief: { ...brief(), languages: ['en', 'de'] },
      evidence: withPages(read),
    }).outcome;
  };
  const PAIR: [string, string][] = [
    ['en', '/songs/'],
    ['de', '/de/lieder/'],
    ['x-default', '/songs/'],
  ];
  it.each<[string, string, string, [string, string][], string]>([
    ['its own hreflang agrees', '/de/lieder/', 'de-AT', PAIR, 'passed'],
    ['its own hreflang says another', '/songs/', 'de', PAIR, 'failed'],
    ['its address says another', '/de/neu/', 'en', PAIR, 'failed'],
    ['a folder that only looks like a language', '/de/lieder/', 'en', [], 'passed'],
    ['another folder', '/it/help/', 'en', PAIR, 'passed'],
  ])('%s', (_, path, lang, alternates, wanted) => {
    expect(at(path, lang, ...alternates)).toBe(wanted);
  });
});

describe('identity.phone', () => {
  // E.164 forms of one number
  it.each(['+44 1632 960111', '01632 960111', '(01632) 960-111', '0044 1632 960111', '+44 (0)1632 960111'])(
    '%s',
    (text) => {
      expect(e164(text, '+441632960111')).toBe('+441632960111');
    },
  );
  it('finds it in a link, in JSON-LD or in the text', () => {
    const judged = (body: string) =>
      ask('identity.phone', {
        evidence: withPages(page({ url: home, via: 'home', body })),
        brief: { ...brief(), phone: '+441632960222' },
      }).outcome;
    expect(judged('')).toBe('failed');
    expect(judged('<a href="tel:+441632960222">call</a>')).toBe('passed');
    expect(judged('<script type="application/ld+json">{"telephone":"01632 960222"}</script>')).toBe('passed');
  });
});

describe('identity.title-names-site', () => {
  const judged = (title: string, name: string) =>
    ask('identity.title-names-site', { evidence: withHome({ title }), brief: { ...brief(), name } }).outcome;
  it('folds case, accents and white space', () => {
    expect(judged('CAFÉ&nbsp;Marée – home', 'Café maree')).toBe('passed');
    expect(judged('Home', 'Marsh Choir')).toBe('failed');
  });
});

describe('identity.home-page', () => {
  describe('knows sample, sign-in and post-list pages, where the page is little else', () => {
    const menu = '<a href="/a">A</a><a href="/b">B</a><a href="/c">C</a><a href="/d">D</a>';
    const password = '<form><input name=u><input type=password name=p><button>Go</button></form>';
    it.each([
      ['a new site', '<title>Welcome to your new site</title><h1>Welcome to your new site!</h1>', 'failed'],
      ['a sample page', '<title>Kites – Sample Page</title><p>Words.', 'failed'],
      ['a sign-in form', `<title>Kites</title><h1>Please log in</h1>${password}`, 'failed'],
      ['a post list', '<title>Kites</title><h1>Kites</h1><h2>Hello world!</h2><p>Words.', 'failed'],
      ['members are asked', '<title>Choir</title><h1>Choir</h1><p>Members: please log in.', 'passed'],
      ['the title of a page with a menu', `<title>Log in</title>${menu}${password}`, 'passed'],
      ['without a password to type', '<title>Log in</title><h1>Log in: a game</h1>', 'passed'],
      [
        'in the middle of prose',
        '<title>Coding club</title><h1>Coding club</h1><p>We say hello world.',
        'passed',
      ],
      ['a title that goes on', '<title>Sample pages of our catalogue</title><p>Words.', 'passed'],
    ])('%s', (_, html, wanted) => {
      expect(ask('identity.home-page', { evidence: withHtml(html) }).outcome).toBe(wanted);
    });
  });
  describe('wants the brief’s mark: words, #id or .class', () => {
    const judged = (homeMark: string) =>
      ask('identity.home-page', {
        evidence: withHome({ body: '<div id="stage" class="hero wide"></div>' }),
        brief: { ...brief(), homeMark },
      }).outcome;
    it.each([
      ['#stage', 'passed'],
      ['.hero', 'passed'],
      ['sings on MONDAYS', 'passed'],
      ['#other', 'failed'],
      ['dances', 'failed'],
    ])('%s: %s', (homeMark, wanted) => {
      expect(judged(homeMark)).toBe(wanted);
    });
  });
  it('a home page that is not found fails', () => {
    expect(ask('identity.home-page', { evidence: withHome({ status: 404 }) }).outcome).toBe('failed');
  });
});

describe('identity.contact-email and private-addresses', () => {
  const judged = (check: string, body: string, b = brief()) =>
    ask(check, { evidence: withHome({ body }), brief: b }).outcome;
  it('an address of a template fails, a share link does not', () => {
    expect(judged('identity.contact-email', '<a href="mailto:info@template.example">x</a>')).toBe('failed');
    expect(judged('identity.contact-email', '<a href="mailto:?subject=look">share</a>')).toBe('passed');
  });
  it('a hidden address cannot be compared', () => {
    const e = { ...brief(), contactEmail: 'choir@marsh-choir.example' };
    expect(judged('identity.contact-email', '<p>choir [at] marsh-choir.example</p>', e)).toBe('cantTell');
    expect(judged('identity.contact-email', '', e)).toBe('failed');
  });
  it('a private address anywhere fails', () => {
    expect(judged('identity.private-addresses', '<p>ALTO@home.example</p>')).toBe('failed');
    expect(judged('identity.private-addresses', '')).toBe('passed');
  });
});

describe('texts left behind', () => {
  it('identity.no-default-title', () => {
    expect(ask('identity.no-default-title', { evidence: withHome({ title: ' HOME ' }) }).outcome).toBe(
      'failed',
    );
    expect(ask('identity.no-default-title', { evidence: withHome({ title: 'Homecoming' }) }).outcome).toBe(
      'passed',
    );
    expect(
      ask('identity.no-default-title', {
        evidence: withHome({ title: 'First stone' }),
        profile: { name: 'Cairn', defaults: { titles: ['First Stone'] } },
      }).outcome,
    ).toBe('failed');
  });
  it('identity.no-placeholder-text', () => {
    for (const t of ['Lorem ipsum dolor', 'write to jane@example.com', 'Dear [name]'])
      expect(
        ask('identity.no-placeholder-text', { evidence: withHome({ body: `<p>${t}</p>` }) }).outcome,
        t,
      ).toBe('failed');
  });
  it.each([
    ['a blank in code', '<pre>token = [your key]</pre>', 'passed'],
    ['a blank in code, and another in the text', '<code>[your key]</code><p>Dear [name]', 'failed'],
    ['the same in code and in the text', '<code>[your key]</code><p>Send [your key] to us', 'failed'],
    ['a blank in the text', '<p>[your key]', 'failed'],
  ])('identity.no-placeholder-text: %s', (_, body, wanted) => {
    expect(ask('identity.no-placeholder-text', { evidence: withHome({ body }) }).outcome).toBe(wanted);
  });
  it('identity.no-placeholder-text: a blank on a page whose code was not collected cannot be told', () => {
    const e = withHome({ body: '<p>Dear [name]' });
    for (const { facts } of e.pages) delete facts!.code;
    expect(ask('identity.no-placeholder-text', { evidence: e })).toMatchObject({
      outcome: 'cantTell',
      reason: expect.stringContaining('audit again') as string,
    });
  });
  it('identity.copyright-year: the newest year counts', () => {
    const judged = (footer: string, at: string) =>
      ask('identity.copyright-year', {
        evidence: withPages({
          ...page({ url: home, via: 'home' }),
          facts: { ...page({ url: home }).facts!, text: footer },
        }),
        at: new Date(at),
      }).outcome;
    expect(judged('© 2019–2026 Choir', '2026-06-01')).toBe('passed');
    expect(judged('Copyright 2019-26 Choir', '2026-06-01')).toBe('passed');
    expect(judged('(c) The Choir 2025', '2026-06-01')).toBe('failed');
    expect(judged('© 2026 Choir', '2027-01-01T05:00:00Z')).toBe('passed');
    expect(judged('since 1911', '2026-06-01')).toBe('inapplicable');
  });
});
