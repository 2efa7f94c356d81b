/**
 * Small evidence for the tests of checks: one live site of three pages where everything is right; tests
 * change what they are about.
 */
import {
  blankView,
  SCREENS,
  type RenderedEvidence,
  type RenderedView,
  type Screen,
} from '#core/facts/rendered';
import { extractPage } from '#core/extract/html';
import { parseRobots } from '#core/extract/robots';
import { parseSitemap } from '#core/extract/sitemap';
import type { Brief } from '#core/facts/brief';
import type { Attestation } from '#core/facts/checklist';
import type {
  AssetEvidence,
  Chain,
  DnsAnswer,
  Evidence,
  Exchange,
  Header,
  HostEvidence,
  PageEvidence,
} from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import type { Situation } from '#core/facts/situation';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge, type JudgeContext, type JudgedFinding } from '#core/checks/engine/judge';

export const AT = new Date('2026-11-24T12:00:00Z');
const GOOD: Header[] = [
  ['Content-Type', 'text/html; charset=utf-8'],
  ['Strict-Transport-Security', 'max-age=31536000'],
  ['Content-Encoding', 'gzip'],
  ['X-Content-Type-Options', 'nosniff'],
  ['X-Frame-Options', 'SAMEORIGIN'],
];

export function exchange(url: string, status: number, headers: Header[] = GOOD): Exchange {
  return {
    url,
    method: 'GET',
    address: '192.0.2.10:443',
    status,
    headers,
    timing: { total: 50, firstByte: 40 },
    bytes: { encoded: 900, decoded: 3000 },
  };
}
/** A chain over addresses: redirects to the last, which answers `status`. */
export function chain(urls: string[], status = 200, headers?: Header[], redirect = 301): Chain {
  return {
    start: urls[0]!,
    hops: urls.map((u, i) =>
      i < urls.length - 1
        ? exchange(u, redirect, [
            ['Location', urls[i + 1]!],
            ['Strict-Transport-Security', 'max-age=31536000'],
          ])
        : exchange(u, status, headers),
    ),
    end: 'answer',
  };
}
export function brokenChain(
  url: string,
  code: 'timeout' | 'refused' | 'no-name' | 'tls',
  message: string = code,
): Chain {
  return {
    start: url,
    hops: [{ url, method: 'GET', headers: [], timing: { total: 1 }, error: { code, message } }],
    end: 'error',
    error: { code, message },
  };
}

export interface PageParts {
  url: string;
  title?: string | null;
  description?: string | null;
  head?: string;
  body?: string;
  status?: number;
  headers?: Header[];
  via?: PageEvidence['via'];
}

export function page({
  url,
  title,
  description,
  head = '',
  body = '',
  status = 200,
  headers,
  via = 'link',
}: PageParts): PageEvidence {
  const word = new URL(url).pathname;
  const html = `<!doctype html><html lang="en-GB"><head><meta charset="utf-8">${title === null ? '' : `<title>${title ?? `Page ${word} – Marsh Choir`}</title>`}${description === null ? '' : `<meta name="description" content="${description ?? `All about ${word} at the Marsh Choir: songs, dates and people, and how to join us on Monday evenings by the water.`}">`}<meta name="viewport" content="width=device-width, initial-scale=1">${/rel="?canonical/.test(head) ? '' : `<link rel="canonical" href="${url}">`}<meta property="og:url" content="${url}">${head}</head><body><h1>${word}</h1><p>The Marsh Choir sings on Mondays by the water, whatever the weather; write to hello@marsh-choir.example or call +44 1632 960111.</p>${body}<a href="/">Home</a><a href="/about/">About</a><a href="/songs/">Songs</a><footer>© 2026 Marsh Choir</footer></body></html>`;
  const facts = extractPage(html, url);
  return {
    url,
    requested: url,
    from: via === 'link' ? 'https://marsh-choir.example/' : null,
    via,
    depth: via === 'home' ? 0 : 1,
    chain: chain([url], status, headers),
    contentType: 'text/html; charset=utf-8',
    charset: 'utf-8',
    sha256: 'x',
    facts,
  };
}

export function dnsAnswer(
  name: string,
  type: string,
  values: string[],
  more: Partial<DnsAnswer> = {},
): DnsAnswer {
  return {
    server: '127.0.0.1:53',
    role: 'resolver',
    name,
    type,
    rcode: 'NOERROR',
    authoritative: false,
    authenticated: false,
    transport: 'udp',
    ms: 1,
    records: values.map((value) => ({ name, type, ttl: 3600, value })),
    ...more,
  };
}

export function host(name: string, more: Partial<HostEvidence> = {}): HostEvidence {
  const goal = 'https://marsh-choir.example/';
  const own = `https://${name}/`;
  const on = own === goal ? [own] : [own, goal];
  const path = on.map((u) => `${u}armband-probe/path?kept=1`);
  return {
    host: name,
    role: own === goal ? 'preferred' : 'other',
    tls: {
      host: name,
      protocol: 'TLSv1.3',
      trusted: true,
      oldProtocols: { accepted: [] },
      chain: [
        {
          subject: `CN=${name}`,
          issuer: 'CN=Practice',
          serial: '1',
          names: ['marsh-choir.example', 'www.marsh-choir.example'],
          notBefore: '2026-11-01T00:00:00.000Z',
          notAfter: '2027-01-30T00:00:00.000Z',
          keyType: 'EC',
          keyBits: 256,
          signature: 'ecdsa-with-SHA256',
          fingerprint256: 'a',
        },
        {
          subject: 'CN=Practice',
          issuer: 'CN=Root',
          serial: '2',
          names: [],
          notBefore: '2026-01-01T00:00:00.000Z',
          notAfter: '2030-01-01T00:00:00.000Z',
          keyType: 'EC',
          keyBits: 256,
          signature: 'ecdsa-with-SHA256',
          fingerprint256: 'b',
        },
      ],
    },
    http: chain([`http://${name}/`, ...on]),
    https: chain(on),
    httpPath: chain([path[0]!.replace('https:', 'http:'), ...path]),
    httpsPath: chain(path),
    landing: {
      url: goal,
      status: 200,
      facts: page({ url: goal, title: 'Marsh Choir – songs by the water' }).facts!,
    },
    addresses: [
      {
        address: '192.0.2.10',
        family: 4,
        exchange: { ...exchange(own, 200) },
        title: 'Marsh Choir',
        tls: { trusted: true, names: ['marsh-choir.example'] },
      },
    ],
    ...more,
  };
}

export const brief = (): Brief => ({
  name: 'Marsh Choir',
  languages: ['en-GB'],
  contactEmail: 'hello@marsh-choir.example',
  privateEmails: ['alto@home.example'],
  phone: '+441632960111',
  preferredHost: 'marsh-choir.example',
  otherHosts: ['www.marsh-choir.example'],
  stagingHosts: ['draft.host.example'],
  records: [{ name: 'marsh-choir.example', type: 'A', value: '192.0.2.10' }],
  tokens: [{ kind: 'tide-site-verification', value: 'abc', place: 'meta' }],
  analyticsIds: ['TM-1'],
  requiredPages: ['/about/'],
});

/** What machines read of the site itself: on the home page. */
const IDENTITY =
  '<meta property="og:site_name" content="Marsh Choir"><script type="application/ld+json">{"@context":"https://schema.org","@type":"Organization","name":"Marsh Choir","url":"https://marsh-choir.example/","logo":"https://marsh-choir.example/logo.png"}</script>';
const SHARE =
  '<meta name="twitter:card" content="summary"><meta property="og:title" content="Songs"><meta property="og:description" content="Songs by the water"><meta property="og:type" content="website"><meta property="og:image" content="https://marsh-choir.example/share.png"><meta property="og:image:alt" content="The choir by the water">';
const COUNT = '<script src="https://count.example/c.js" data-site="TM-1"></script>';
export const HEAD = SHARE + COUNT;

/** A page as a browser showed it on one screen: nothing wrong with it. */
const seenView = (
  { url, facts }: Pick<PageEvidence, 'url' | 'facts'>,
  screen: Screen,
  change: Partial<RenderedView> = {},
): RenderedView => ({
  ...blankView(url, screen),
  status: 200,
  facts,
  hits: [{ url: 'https://count.example/hit?site=TM-1', id: 'TM-1' }],
  layoutShift: 0,
  layout: { width: SCREENS[screen].width, sideways: 0, wide: [], small: [] },
  ...change,
});

/** These pages as a browser showed them. @param change of each view */
export const seenBy = (
  pages: readonly PageEvidence[],
  change: Partial<RenderedView> | ((page: PageEvidence, screen: Screen) => Partial<RenderedView>) = {},
): RenderedEvidence => ({
  browser: 'Chromium 156',
  pages: pages
    .filter((p) => p.facts)
    .map((p) => ({
      url: p.url,
      views: (['desktop', 'phone'] as const).map((screen) =>
        seenView(p, screen, typeof change === 'function' ? change(p, screen) : change),
      ),
    })),
});

/** The evidence with pages that a browser saw so. */
export function withSeen(change: Parameters<typeof seenBy>[1]): Evidence {
  const e = evidence();
  return { ...e, rendered: seenBy(e.pages, change) };
}

export function evidence(change: Partial<Evidence> = {}): Evidence {
  const whole = unseen(change);
  return { ...whole, rendered: change.rendered ?? seenBy(whole.pages) };
}

function unseen(change: Partial<Evidence>): Evidence {
  const base = 'https://marsh-choir.example/';
  const robots = 'User-agent: *\nDisallow:\n';
  const map = `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><url><loc>${base}</loc></url><url><loc>${base}about/</loc></url><url><loc>${base}songs/</loc></url></urlset>`;
  const picture = (
    path: string,
    role: 'icon' | 'touch-icon' | 'share-picture' | 'logo',
    width: number,
    height: number,
  ) => ({
    url: base + path,
    roles: [role],
    chain: chain([base + path], 200, [['Content-Type', 'image/png']]),
    contentType: 'image/png',
    image: { type: 'png', width, height },
  });
  return {
    version: 2,
    agent: 'test',
    target: {
      url: base,
      hosts: ['marsh-choir.example', 'www.marsh-choir.example'],
      registrable: 'marsh-choir.example',
      kind: 'live',
      wayIn: 'open',
    },
    startedAt: AT.toISOString(),
    finishedAt: AT.toISOString(),
    dns: {
      resolvers: ['127.0.0.1:53'],
      zone: 'marsh-choir.example',
      nameServers: [
        { name: 'ns1.registry.example', addresses: ['203.0.113.53'], namedBy: ['parent', 'zone'] },
        { name: 'ns2.registry.example', addresses: ['203.0.113.54'], namedBy: ['parent', 'zone'] },
      ],
      parent: { zone: 'example', servers: [] },
      randomLabel: 'armband-9f2c',
      answers: [
        ...['marsh-choir.example', 'www.marsh-choir.example'].map((n) => dnsAnswer(n, 'A', ['192.0.2.10'])),
        ...[1, 2].flatMap((n) =>
          (
            [
              ['A', ['192.0.2.10']],
              ['AAAA', []],
              ['CNAME', []],
              ['HTTPS', []],
              ['NS', ['ns1.registry.example', 'ns2.registry.example']],
              ['SOA', ['ns1.registry.example host.registry.example 1 7200 3600 1209600 3600']],
            ] as [string, string[]][]
          ).map(([type, values]) =>
            dnsAnswer('marsh-choir.example', type, values, {
              role: 'authority',
              server: `203.0.113.5${n + 2}:53`,
              serverName: `ns${n}.registry.example`,
              authoritative: true,
            }),
          ),
        ),
        dnsAnswer('marsh-choir.example', 'NS', [], {
          role: 'parent',
          server: '198.51.100.53:53',
          authority: ['ns1', 'ns2'].map((n) => ({
            name: 'marsh-choir.example',
            type: 'NS',
            ttl: 3600,
            value: `${n}.registry.example`,
          })),
        }),
        dnsAnswer('marsh-choir.example', 'DS', [], { role: 'parent', server: '198.51.100.53:53' }),
        dnsAnswer('marsh-choir.example', 'MX', ['10 mail.marsh-choir.example']),
        dnsAnswer('mail.marsh-choir.example', 'A', ['203.0.113.25']),
        dnsAnswer('marsh-choir.example', 'TXT', ['"v=spf1 -all"']),
        dnsAnswer('_dmarc.marsh-choir.example', 'TXT', ['"v=DMARC1; p=none"']),
        dnsAnswer('_mta-sts.marsh-choir.example', 'TXT', []),
        dnsAnswer('_smtp._tls.marsh-choir.example', 'TXT', []),
      ],
    },
    hosts: [host('marsh-choir.example'), host('www.marsh-choir.example')],
    subdomains: [],
    robots: {
      chain: chain([`${base}robots.txt`]),
      contentType: 'text/plain',
      text: robots,
      facts: parseRobots(robots),
    },
    sitemaps: [
      {
        url: `${base}sitemap.xml`,
        from: 'default',
        chain: chain([`${base}sitemap.xml`]),
        facts: parseSitemap(map),
      },
    ],
    pages: [
      page({
        url: base,
        title: 'Marsh Choir – songs by the water',
        description:
          'The Marsh Choir sings by the water on Monday evenings, and takes in new voices in spring and autumn.',
        via: 'home',
        head: `${HEAD}${IDENTITY}<meta name="tide-site-verification" content="abc">`,
      }),
      page({ url: `${base}about/`, via: 'brief', head: HEAD }),
      page({ url: `${base}songs/`, via: 'sitemap', head: HEAD }),
    ],
    unread: [],
    assets: [
      picture('icon.png', 'icon', 64, 64),
      picture('touch.png', 'touch-icon', 180, 180),
      picture('share.png', 'share-picture', 1200, 630),
      picture('logo.png', 'logo', 300, 100),
    ],
    notFound: chain([`${base}armband-no-such-page-7f3a`], 404),
    paths: ['/.git/HEAD', '/.env', '/.well-known/security.txt'].map((path) => ({
      path,
      chain: chain([base + path.slice(1)], 404),
    })),
    tokenFiles: [],
    registration: {
      domain: 'marsh-choir.example',
      served: true,
      status: ['active', 'client transfer prohibited'],
      registrar: 'Gullwing Names',
      events: [{ action: 'expiration', date: '2027-08-01T00:00:00Z' }],
      nameServers: [],
    },
    links: [],
    folders: [],
    former: [],
    variants: [],
    freshness: [{ url: base, ordinary: { status: 200, text: 'a' }, revalidated: { status: 200, text: 'a' } }],
    manifest: null,
    bypass: null,
    mtaSts: null,
    notes: [],
    ...change,
  };
}

export interface Asked extends JudgeContext {
  evidence?: Evidence;
  parameters?: Record<string, number>;
  brief?: Brief;
  profile?: HostProfile;
  situation?: Situation;
  at?: Date;
  attestations?: Attestation[];
}

/** One check's finding. */
export function ask(
  check: string,
  {
    evidence: e = evidence(),
    brief: b = brief(),
    profile,
    situation = 'live',
    at = AT,
    parameters,
    ...beside
  }: Asked = {},
): JudgedFinding {
  const checklist = fullChecklist();
  const item = checklist.items.find((i) => i.check === check);
  if (item && parameters) item.parameters = { ...item.parameters, ...parameters };
  const all = judge({
    evidence: e,
    brief: b,
    profile,
    checklist,
    situation,
    at,
    skipManual: true,
    ...beside,
  });
  const found = all.find((f) => f.check === check);
  if (!found) throw new Error(`${check} is not asked as ${situation}`);
  return found;
}

/** The evidence with other pages. */
export function withPages(...pages: PageEvidence[]): Evidence {
  return evidence({ pages });
}
/** The evidence with the home page changed. */
export function withHome(parts: Partial<PageParts>): Evidence {
  const e = evidence();
  return evidence({
    pages: [
      page({
        url: 'https://marsh-choir.example/',
        title: 'Marsh Choir – songs by the water',
        via: 'home',
        head: HEAD,
        ...parts,
      }),
      ...e.pages.slice(1),
    ],
  });
}

/** The address of the example's home page. */
export const HOME = 'https://marsh-choir.example/';

/** The evidence with a home page of just this HTML. */
export function withHtml(html: string, parts: Partial<PageParts> = {}, url = HOME): Evidence {
  const e = evidence();
  const home = { ...page({ url, via: 'home', ...parts }), facts: extractPage(html, url) };
  return evidence({ pages: [home, ...e.pages.slice(1)] });
}

/** A file that pages use, as it was read. */
export function asset(path: string, more: Partial<AssetEvidence> = {}): AssetEvidence {
  return { url: HOME + path, roles: ['picture'], chain: chain([HOME + path]), ...more };
}
/** The evidence with these files and no others; an icon, if nothing else is said. */
export function withAssets(...assets: Partial<AssetEvidence>[]): Evidence {
  return evidence({ assets: assets.map((a) => ({ ...asset('x.png', { roles: ['icon'] }), ...a })) });
}

/** The outcome of a check for a home page, a brief and whatever else is not as in the example. */
export function outcome(
  check: string,
  parts: Partial<PageParts>,
  b: Partial<Brief> = {},
  { profile, ...more }: Omit<Asked, 'profile'> & { profile?: Partial<HostProfile> } = {},
): string {
  return ask(check, {
    evidence: withHome(parts),
    brief: { ...brief(), ...b },
    profile: { name: 'Fennel', ...profile },
    ...more,
  }).outcome;
}

/** The example site with other DNS answers in place of those to the same questions. */
export function withAnswers(...answers: DnsAnswer[]): Evidence {
  const e = evidence();
  const key = (a: DnsAnswer) => `${a.name} ${a.type}`;
  const replaced = new Set(answers.map(key));
  e.dns.answers = [...e.dns.answers.filter((a) => !replaced.has(key(a))), ...answers];
  return e;
}
