/** Names, profiles, badges, colours: what a template or host left behind. */
import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import {
  ask,
  asset,
  brief,
  chain,
  evidence,
  HEAD,
  page,
  withHome,
  withHtml,
  withPages,
} from '#core/checks/example-evidence';
import { profileKey } from './profile-links';
import { hexColour } from './theme-colour';

const home = 'https://marsh-choir.example/';
const out = (
  check: string,
  parts: Parameters<typeof withHome>[0],
  b: Partial<Brief> = {},
  profile?: Partial<HostProfile>,
) =>
  ask(check, {
    evidence: withHome(parts),
    brief: { ...brief(), ...b },
    profile: { name: 'Fennel', ...profile },
  }).outcome;
const ld = (node: object) =>
  `<script type="application/ld+json">${JSON.stringify({ '@context': 'https://schema.org', ...node })}</script>`;

describe('identity.no-default-tagline', () => {
  const profile = { defaults: { taglines: ['Another seed in the ground'] } };
  it.each([
    [{ description: 'Just another  SITE' }, 'failed'],
    [{ description: 'Another seed in the ground' }, 'failed'],
    [{ title: 'Marsh Choir – Another seed in the ground' }, 'failed'],
    [{ description: 'We are not just another site.' }, 'passed'],
    [{ head: `${HEAD}<meta property="og:description" content="Your tagline here">` }, 'failed'],
  ])('%j: %s', (parts, outcome) => {
    expect(out('identity.no-default-tagline', parts, {}, profile)).toBe(outcome);
  });
});

describe('identity.site-name', () => {
  const name = (head: string) => out('identity.site-name', { head });
  describe('Open Graph or JSON-LD, white space and case folded', () => {
    it.each([
      [
        '\'<meta property="og:site_name" content="marsh choir">\'',
        '<meta property="og:site_name" content="marsh  choir">',
        'passed',
      ],
      [
        "ld({ '@type': 'WebSite', name: 'Marsh Choir' })",
        ld({ '@type': 'WebSite', name: 'Marsh Choir' }),
        'passed',
      ],
      [
        "ld({ '@type': 'Person', name: 'Marsh Choir' })",
        ld({ '@type': 'Person', name: 'Marsh Choir' }),
        'failed',
      ],
      [
        '\'<meta property="og:site_name" content="Template">\'',
        '<meta property="og:site_name" content="Template">',
        'failed',
      ],
      ["''", '', 'failed'],
    ])('%s', (_, head, wanted) => {
      expect(name(head)).toBe(wanted);
    });
  });
  it('one that is right is enough, and the other is said', () => {
    expect(
      ask('identity.site-name', {
        evidence: withHome({
          head: `<meta property="og:site_name" content="Marsh Choir">${ld({ '@type': 'Organization', name: 'Template' })}`,
        }),
      }),
    ).toMatchObject({ outcome: 'passed', notes: [expect.stringContaining('Template') as string] });
  });
  it('untested without a name', () => {
    expect(out('identity.site-name', {}, { name: undefined })).toBe('untested');
  });
});

describe('identity.email-domain (Public Suffix List)', () => {
  const mail = (contactEmail: string, more: Partial<Brief> = {}) =>
    out('identity.email-domain', {}, { contactEmail, ...more });
  it.each([
    ['a@marsh-choir.example', 'passed'],
    ['a@mail.marsh-choir.example', 'passed'],
    ['a@gmail.example', 'failed'],
    ['a@notmarsh-choir.example', 'failed'],
  ])('%s: %s', (address, outcome) => {
    expect(mail(address)).toBe(outcome);
  });
  it('others may be allowed; without a host nobody can tell', () => {
    expect(mail('a@post.example', { allowedEmailDomains: ['post.example'] })).toBe('passed');
    expect(mail('a@b.example', { preferredHost: undefined })).toBe('untested');
  });
});

describe('identity.profile-links', () => {
  const links = { profileLinks: ['https://shoal.example/marsh-choir'] };
  const judged = (href: string) => out('identity.profile-links', { body: `<a href="${href}">us</a>` }, links);
  it.each([
    ['https://shoal.example/marsh-choir', 'passed'],
    ['https://www.shoal.example/Marsh-Choir/?ref=x', 'passed'],
    ['https://shoal.example/marsh-choir/photos', 'passed'],
    ['https://shoal.example/marsh-choir-2', 'failed'],
    ['https://shoal.example/', 'failed'],
    ['https://shoal.example/share?u=x', 'failed'],
    ['https://shoal.example/intent/post', 'inapplicable'],
    ['https://other.example/x', 'inapplicable'],
  ])('%s: %s', (href, outcome) => {
    // a sharing link is no profile
    expect(judged(href)).toBe(href.includes('/share') ? 'inapplicable' : outcome);
  });
  it('whose it is, where the agency knows', () => {
    expect(
      ask('identity.profile-links', {
        evidence: withHome({ body: '<a href="https://shoal.example/kites">x</a>' }),
        brief: { ...brief(), ...links },
        book: [
          {
            client: 'Windrow',
            site: 'Kites',
            tokens: [],
            analyticsIds: [],
            privateEmails: [],
            profileLinks: ['https://shoal.example/kites'],
          },
        ],
      }).found,
    ).toContain('Windrow (Kites)');
  });
  it('one spelling for a profile', () => {
    expect(profileKey('https://m.shoal.example/A/?x#y')).toBe('shoal.example/a');
    expect(profileKey('mailto:x')).toBeUndefined();
  });
});

describe('identity.organisation-data', () => {
  const good = { '@type': 'Organization', name: 'Marsh Choir', url: home, logo: `${home}logo.png` };
  const judged = (node: object, situation: 'live' | 'staging' = 'live') =>
    ask('identity.organisation-data', { evidence: withHome({ head: ld(node) }), situation }).outcome;
  describe('an Organization or a subtype with name, logo and the preferred host', () => {
    it.each([
      ['good', good, 'passed'],
      ["{ ...good, '@type': ['LocalBusiness'] }", { ...good, '@type': ['LocalBusiness'] }, 'passed'],
      [
        "{ ...good, logo: { '@type': 'ImageObject', url: '/logo.png' } }",
        { ...good, logo: { '@type': 'ImageObject', url: '/logo.png' } },
        'passed',
      ],
      ['{ ...good, logo: undefined }', { ...good, logo: undefined }, 'failed'],
      ['{ ...good, url: undefined }', { ...good, url: undefined }, 'failed'],
      [
        "{ ...good, url: 'https://template.example/' }",
        { ...good, url: 'https://template.example/' },
        'failed',
      ],
      ["{ ...good, '@type': 'Person' }", { ...good, '@type': 'Person' }, 'failed'],
    ])('%s', (_, head, wanted) => {
      expect(judged(head)).toBe(wanted);
    });
  });
});

describe('identity.default-author', () => {
  const profile = { defaults: { authors: ['gardener'] } };
  describe('bylines, metas and JSON-LD', () => {
    it.each([
      [{ body: '<p class="author">By Gardener</p>' }, 'failed'],
      [{ head: '<meta name="author" content="gardener">' }, 'failed'],
      [{ head: ld({ '@type': 'Article', author: { name: 'Gardener' } }) }, 'failed'],
      [{ body: '<p class="author">By Ines</p>' }, 'passed'],
    ])('%j: %s', (parts, wanted) => {
      expect(out('identity.default-author', parts, {}, profile)).toBe(wanted);
    });
  });
  describe('nobody named, or no profile: inapplicable', () => {
    it.each([
      ['{}, {}, profile', {}, {}, profile, 'inapplicable'],
      [
        '{ body: \'<p class="author">By gardener</p>\' }',
        { body: '<p class="author">By gardener</p>' },
        undefined,
        undefined,
        'inapplicable',
      ],
    ])('%s', (_, parts, b, profile, wanted) => {
      expect(out('identity.default-author', parts, b, profile)).toBe(wanted);
    });
  });
});

describe('identity.required-pages', () => {
  const about = (status: number) => page({ url: `${home}about/`, via: 'brief', status });
  const judged = (body: string, ...pages: ReturnType<typeof page>[]) => {
    const h = page({ url: home, via: 'home', body });
    h.facts!.anchors = h.facts!.anchors.filter((a) => !a.href.endsWith('/about/') || body !== '');
    return ask('identity.required-pages', { evidence: withPages(h, ...pages) }).outcome;
  };
  describe('linked and there, there and not linked, gone, refused, not read', () => {
    it.each([
      ['linked, and there', '<a href="/about/">x</a>', about(200), 'passed'],
      ['there, and not linked', '', about(200), 'failed'],
      ['linked, and gone', '<a href="/about/">x</a>', about(404), 'failed'],
      ['linked, and refused', '<a href="/about/">x</a>', about(403), 'cantTell'],
    ])('%s', (_, body, there, wanted) => {
      expect(judged(body, there)).toBe(wanted);
    });
    it('not read', () => {
      expect(judged('<a href="/about/">x</a>')).toBe('cantTell');
    });
  });
});

describe('identity.no-host-badge', () => {
  const profile = { badge: ['Grown on Fennel', 'badge.fennel.example'] };
  const judged = (body: string, b: Partial<Brief> = { badge: 'unwanted' }) =>
    out('identity.no-host-badge', { body }, b, profile);
  describe('by text or address, where it is not wanted', () => {
    it.each<[...Parameters<typeof judged>, string]>([
      ['<a href="https://fennel.example/">grown on Fennel</a>', undefined, 'failed'],
      ['<a href="https://badge.fennel.example/x"><img src=a alt=a></a>', undefined, 'failed'],
      ['<p>Grown on Fennel since May</p>', undefined, 'failed'],
      ['', undefined, 'passed'],
      ['<a href="/x">Grown on Fennel</a>', { badge: 'wanted' }, 'inapplicable'],
      ['', {}, 'untested'],
    ])('%s, %j: %s', (body, b, wanted) => {
      expect(judged(body, b)).toBe(wanted);
    });
  });
});

describe('identity.no-placeholder-text: blanks and names that are nobody’s (RFC 2606, RFC 6761)', () => {
  const real = 'https://www.seaview-kites.co.uk/';
  const judged = (body: string, on = home) =>
    ask('identity.no-placeholder-text', {
      evidence: { ...withHtml(`<title>Kites</title>${body}`, {}, on), target: targetOn(on) },
      brief: { ...brief(), preferredHost: undefined },
    }).outcome;
  const targetOn = (url: string) => ({ ...evidence().target, url, hosts: [new URL(url).hostname] });
  it.each([
    ['<p>Welcome to [Company Name]!', 'failed'],
    ['<p>Call us: [phone number]', 'failed'],
    ['<p>[Insert your address here]', 'failed'],
    ['<p>[Your Name]', 'failed'],
    ['<p>[city name]', 'failed'],
    ['<p>As was said [1], [sic] and [edit]', 'passed'],
    ['<p>Write to [email protected]', 'passed'],
    ['<p>[gallery] [contact form]', 'passed'],
  ])('%s: %s', (body, wanted) => {
    expect(judged(body, real)).toBe(wanted);
  });
  it.each([
    ['<p>mail@acme.test', 'failed'],
    ['<p>See www.acme.example for more', 'failed'],
    ['<p>https://acme.invalid/', 'failed'],
    ['<p>ring@example.org', 'failed'],
    ['<a href="https://acme.test/">us</a>', 'failed'],
    ['<a href="mailto:hello@acme.invalid">us</a>', 'failed'],
    ['<form action="https://forms.example/send"></form>', 'failed'],
    [
      '<script type="application/ld+json">{"@type":"Person","sameAs":"https://acme.example/"}</script>',
      'failed',
    ],
    ['<p>Put us to the.test and see; regex.test(text) is code', 'passed'],
    ['<p>An example. The test. Invalid!', 'passed'],
    ['<p>For example.Communication matters', 'passed'],
  ])('on a real name, %s: %s', (body, wanted) => {
    expect(judged(body, real)).toBe(wanted);
  });
  it.each([
    ['<p>hello@ferries.example', 'passed'],
    ['<a href="https://ferries.example/">them</a>', 'passed'],
    ['<p>hello@acme.test', 'failed'],
    ['<p>hello@example.com', 'failed'],
  ])('on a name under .example, %s: %s', (body, wanted) => {
    expect(judged(body)).toBe(wanted);
  });
});

describe('identity.organisation-data: subtypes by schema.org’s own tree', () => {
  const judged = (data: object) =>
    ask('identity.organisation-data', {
      evidence: withHtml(
        `<title>x</title><script type="application/ld+json">${JSON.stringify({ '@context': 'https://schema.org', ...data })}</script>`,
      ),
    });
  const whole = { name: 'Marsh Choir', url: home, logo: `${home}logo.png` };
  it.each<[string, object, string]>([
    ['Dentist', { '@type': 'Dentist', ...whole }, 'passed'],
    ['IndividualPhysician', { '@type': 'IndividualPhysician', ...whole }, 'passed'],
    ['with its vocabulary', { '@type': 'https://schema.org/MusicGroup', ...whole }, 'passed'],
    ['one of several types', { '@type': ['Brand', 'Bakery'], ...whole }, 'passed'],
    [
      'a logo by contentUrl',
      { '@type': 'Organization', ...whole, logo: { '@type': 'ImageObject', contentUrl: 'logo.png' } },
      'passed',
    ],
    ['a nested publisher', { '@type': 'WebSite', publisher: { '@type': 'NGO', ...whole } }, 'passed'],
    ['Person', { '@type': 'Person', ...whole }, 'failed'],
    ['Brand', { '@type': 'Brand', ...whole }, 'failed'],
    ['Group', { '@type': 'WorkGroup', ...whole }, 'failed'],
  ])('%s', (_, data, wanted) => {
    expect(judged(data).outcome).toBe(wanted);
  });
  it('the node that lacks least is named', () => {
    expect(
      judged({
        '@graph': [
          { '@type': 'Organization', name: 'A maker' },
          { '@type': ['Brand', 'Dentist'], name: 'Teeth', url: home },
        ],
      }).found,
    ).toBe('Dentist “Teeth” without logo');
  });
});

describe('identity.organisation-data: what it names answers', () => {
  const judged = (change: object, e: Partial<Evidence> = {}, situation: 'live' | 'staging' = 'live') => {
    const node = {
      '@context': 'https://schema.org',
      '@type': 'Organization',
      name: 'Marsh Choir',
      url: home,
      logo: `${home}logo.png`,
      ...change,
    };
    const seen = {
      ...withHtml(`<title>x</title><script type="application/ld+json">${JSON.stringify(node)}</script>`),
      ...e,
    };
    const { outcome, found, reason } = ask('identity.organisation-data', { evidence: seen, situation });
    return [outcome, found ?? reason];
  };
  const gone = [asset('logo.png', { roles: ['logo'], chain: chain([`${home}logo.png`], 404) })];

  it('a logo that is not there fails', () =>
    expect(judged({}, { assets: gone })).toEqual([
      'failed',
      `Organization “Marsh Choir”, whose logo ${home}logo.png answers 404`,
    ]));
  it('an address that is not there fails', () =>
    expect(
      judged(
        { url: `${home}about-us` },
        { links: [{ url: `${home}about-us`, own: true, chain: chain([`${home}about-us`], 410) }] },
      ),
    ).toEqual(['failed', `Organization “Marsh Choir”, whose url ${home}about-us answers 410`]));
  it('a logo that was not asked for cannot be told', () =>
    expect(judged({}, { assets: [] })[0]).toBe('cantTell'));
  it('a logo within the page is there', () =>
    expect(judged({ logo: 'data:image/png;base64,AAAA' }, { assets: [] })[0]).toBe('passed'));
  it('before the launch nothing is asked of the live address', () =>
    expect(judged({ logo: 'https://live.example/logo.png' }, { assets: gone }, 'staging')[0]).toBe('passed'));
});

describe('identity.language by the text', () => {
  const GERMAN =
    'Der Chor singt am Montag am Wasser, und wer mitsingen will, ist zu der Probe eingeladen. Es ist nicht nötig, dass man die Noten lesen kann: Wir lernen die Lieder nach dem Gehör, und das geht mit der Zeit von selbst. Im Sommer sind wir auf den Booten im Hafen und singen für die Leute, die dort auf die Fähre warten. Auch für Kinder ist ein Platz da, und sie werden nach den Ferien mit einem Lied begrüßt. Schreiben Sie uns, oder kommen Sie an einem der Abende vorbei.';
  const judged = (lang: string, text: string) =>
    ask('identity.language', {
      evidence: withHtml(`<!doctype html><html lang="${lang}"><title>x</title><p>${text}</p>`),
      brief: { ...brief(), languages: ['en-GB', 'de'] },
    });
  it('another language than the text’s fails', () =>
    expect(judged('en', GERMAN)).toMatchObject({
      outcome: 'failed',
      found: expect.stringContaining('en, while the page’s text is in de') as string,
    }));
  it('the text’s own passes', () => expect(judged('de-AT', GERMAN).outcome).toBe('passed'));
  it('a short text says nothing', () =>
    expect(judged('en', 'Der Chor singt am Montag am Wasser.').outcome).toBe('passed'));
});

describe('identity.theme-colour', () => {
  const colours = [{ role: 'main', value: '#3A3F8F' }];
  const judged = (head: string) => out('identity.theme-colour', { head }, { colours });
  describe('short and long form, any case; several may stand there', () => {
    it.each([
      ['<meta name="theme-color" content="#3a3f8f">', 'passed'],
      ['<meta name="theme-color" content="#3a3f90">', 'failed'],
      [
        '<meta name="theme-color" media="(prefers-color-scheme: dark)" content="#000"><meta name="theme-color" content="#3a3f8fff">',
        'passed',
      ],
      ['', 'failed'],
    ])('%s: %s', (head, wanted) => {
      expect(judged(head)).toBe(wanted);
    });
  });
  it('the manifest’s stands in', () => {
    const e = withHome({});
    e.manifest = {
      url: `${home}m`,
      chain: evidence().robots.chain,
      facts: { icons: [], themeColour: '#3a3f8f' },
    };
    expect(ask('identity.theme-colour', { evidence: e, brief: { ...brief(), colours } }).outcome).toBe(
      'passed',
    );
  });
  it.each([
    ['#abc', 'aabbcc'],
    ['ABCDEF', 'abcdef'],
    ['#abcd', 'aabbcc'],
    ['red', 'ff0000'],
    ['RebeccaPurple', '663399'],
    ['rgb(58, 63, 143)', '3a3f8f'],
    ['rgb(58 63 143 / 80%)', '3a3f8f'],
    ['hsl(120 100% 25%)', '008000'],
    ['#ab', undefined],
    ['our blue', undefined],
    ['', undefined],
  ])('%s is %s (CSS Color 4)', (text, hex) => {
    expect(hexColour(text)).toBe(hex);
  });
});
