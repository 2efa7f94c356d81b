/** What the practice net's web servers answer, by host, scheme and path. */
import { createHash } from 'node:crypto';
import zlib from 'node:zlib';
import type { LeafKind } from './certificates';
import type { FaultSwitches, PracticeEnvironment } from './switches';
import {
  challengePage,
  extraPages,
  formerPage,
  holdingPage,
  listingPage,
  pagesOf,
  parkingPage,
  profilePage,
  renderPage,
  samplePage,
  thanksPage,
  unknownPage,
  type PageSetting,
} from './pages';
import { ico, noisyPng, png } from './pictures';
import {
  FORMER,
  HOSTS,
  SITES,
  hostFacts,
  hostIcon,
  keyOf,
  otherHost,
  passOf,
  placesBefore,
  preferredHost,
  SHOAL,
  subdomainOf,
  type PracticeSite,
} from './sites';

export interface WebAnswer {
  status: number;
  headers: Record<string, string>;
  body: Buffer | string;
  delayMs?: number;
}
export interface WebRequest {
  host: string;
  path: string;
  query: string;
  secure: boolean;
  acceptsGzip: boolean;
  headers: Record<string, string | undefined>;
  /** Address of the practice net that was dialled. */ address?: string;
}
type Faults = (fault: string) => boolean;

const html = (body: string, status = 200, headers: Record<string, string> = {}): WebAnswer => ({
  status,
  headers: { 'content-type': 'text/html; charset=utf-8', ...headers },
  body,
});
const text = (body: string, type = 'text/plain; charset=utf-8', status = 200): WebAnswer => ({
  status,
  headers: { 'content-type': type },
  body,
});
const redirect = (to: string, status = 301): WebAnswer => ({
  status,
  headers: { location: to, 'content-type': 'text/plain' },
  body: 'moved',
});

const KEPT = { 'cache-control': 'public, max-age=31536000' };
const pictures = new Map<string, Buffer>();
const picture = (key: string, make: () => Buffer): WebAnswer => {
  let b = pictures.get(key);
  if (!b) pictures.set(key, (b = make()));
  return {
    status: 200,
    headers: { 'content-type': key.endsWith('.ico') ? 'image/x-icon' : 'image/png', ...KEPT },
    body: b,
  };
};
const STYLE = `@font-face{font-family:"Firth Sans";src:url(fonts/firth.woff2) format("woff2")}\n:root{--ink:#222}\nbody{font-family:"Firth Sans",sans-serif}\n${Array.from({ length: 40 }, (_, i) => `.block-${i}{margin:${i}px 0;padding:${i % 7}px}`).join('\n')}\n`;
const UNUSED_FONT = '@font-face{font-family:"Old Theme";src:url(fonts/old.woff2)}\n';
export const SCRIPT = `/* menus */\n${Array.from({ length: 30 }, (_, i) => `function step${i}(n){return n+${i};}`).join('\n')}\n`;

/** Which site a host belongs to, as what, and below which path. */
export function siteOf(
  host: string,
  path: string,
): { site: PracticeSite; environment: PracticeEnvironment; prefix: string } | undefined {
  for (const site of SITES) {
    if (host === site.domain || host === `www.${site.domain}`)
      return { site, environment: 'live', prefix: '/' };
    for (const p of placesBefore(site))
      if (host === p.host && path.startsWith(p.path.replace(/\/$/, '')))
        return { site, environment: 'staging', prefix: p.path };
  }
  return undefined;
}

/** Icons, pictures, styles and scripts. */
export function asset(s: PracticeSite, path: string, on: Faults): WebAnswer | undefined {
  const size = /^\/icon-(32|48|128|192|240|512)\.png$/.exec(path)?.[1];
  if (size && !on('no-icon'))
    return size === '48' && on('host-icon')
      ? picture(`host ${s.host} ${path}`, () => hostIcon(s.host))
      : picture(`${s.slug}${path}`, () => png(Number(size), Number(size), s.colour));
  switch (path) {
    case '/favicon.ico':
      return on('no-icon') ? undefined : picture(`${s.slug}.ico`, () => ico([16, 32, 48], s.colour));
    case '/touch.png':
      return on('no-touch-icon')
        ? undefined
        : picture(`${s.slug}${path}`, () =>
            s.host === 'Fennel Hosting' ? png(240, 240, s.colour) : png(180, 180, s.colour),
          );
    case '/share.png':
      return picture(`${s.slug}${path}`, () => png(1200, 630, s.colour));
    case '/share-small.png':
      return picture(`${s.slug}${path}`, () => png(600, 400, s.colour));
    case '/share-heavy.png':
      return picture('heavy share.png', () => noisyPng(1200, 630));
    case '/logo.png':
      return picture(`${s.slug}${path}`, () => png(300, 100, s.colour));
    case '/pictures/view.png':
      return picture(`${s.slug}${path}`, () => png(600, 300, s.colour));
    case '/pictures/heavy.png':
      return picture('heavy.png', () => noisyPng(1200, 1200));
    case '/pictures/camera.png':
      return picture('camera.png', () => noisyPng(560, 400));
    case '/fonts/firth.woff2':
    case '/fonts/old.woff2':
      return {
        status: 200,
        headers: { 'content-type': 'font/woff2', ...KEPT },
        body: Buffer.from(`wOF2${'\0'.repeat(60)}`, 'latin1'),
      };
    case '/style.3f9a1c2b.css':
      return {
        status: 200,
        headers: { 'content-type': 'text/css', ...(on('uncached') ? {} : KEPT) },
        body: (on('font-unused') ? UNUSED_FONT : '') + STYLE,
      };
    case '/app.js':
      return {
        status: 200,
        headers: { 'content-type': 'text/javascript', ...KEPT },
        body: on('file-old') ? `${SCRIPT}// last month's\n` : SCRIPT,
      };
    case '/site.webmanifest':
      return text(
        on('manifest-broken')
          ? '{"name":'
          : JSON.stringify({
              name: s.name,
              short_name: s.name.slice(0, 12),
              start_url: './',
              scope: './',
              theme_color: s.colour,
              icons: [192, 512].map((z) => ({ src: `icon-${z}.png`, sizes: `${z}x${z}`, type: 'image/png' })),
            }),
        'application/manifest+json',
      );
    default:
      return undefined;
  }
}

function robots(s: PracticeSite, on: Faults, goal: string): WebAnswer {
  if (on('robots-page')) return html('<!doctype html><title>Not found</title><p>Nothing here');
  if (on('robots-closed')) return text('User-agent: *\nDisallow: /\n');
  return text(
    [
      ...(on('robots-slip') ? ['Disallow: /early/'] : []),
      'User-agent: *',
      'Disallow: /cart/',
      ...(on('robots-slip') ? ['Dissallow: /basket/'] : []),
      ...(on('robots-no-assets') ? ['Disallow: /style.3f9a1c2b.css'] : []),
      ...(on('robots-tells') ? [`# drafts: ${s.staging.host}`] : []),
      '',
      `Sitemap: https://${goal}/sitemap.xml`,
      '',
    ].join('\n'),
  );
}

function sitemap(s: PracticeSite, on: Faults, goal: string, year: number): WebAnswer {
  const pages = [...pagesOf(s), ...extraPages(s, on)]
    .filter((p) => !(on('sitemap-short') && p.path === '/news/'))
    .map((p) => p.path);
  if (on('sitemap-dead')) pages.push('/summer-party/');
  return text(
    `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${pages.map((p) => `<url><loc>https://${goal}${p}</loc><lastmod>${on('sitemap-future') ? `${year + 2}-01-01` : '2026-11-01'}</lastmod></url>`).join('\n')}\n</urlset>\n`,
    'application/xml',
  );
}

/** What a site under its old roof still shows, and what a domain shows before there is a site. */
function beforeLaunch(s: PracticeSite, r: WebRequest, on: Faults, year: number): WebAnswer {
  const file = asset(s, r.path, on);
  if (file) return file;
  if (s.replaces)
    return r.path === '/' || r.path.endsWith('.html')
      ? html(formerPage(s, r.path))
      : html(unknownPage('No such page'), 404);
  if (r.query.includes(passOf(s).slice(1))) return sitePage(s, r, 'live', '/', on, year);
  return r.path === '/' ? html(holdingPage(s, on('rude-holding'))) : html(unknownPage('No such page'), 404);
}

/** Addresses of the former site and where they lead now. */
export const FORMER_PATHS: [string, string][] = [
  ['/history.html', '/about/'],
  ['/prices.html', '/visit/'],
  ['/contact.html', '/contact/'],
];

function liveAnswer(s: PracticeSite, r: WebRequest, on: Faults, year: number): WebAnswer {
  const { path } = r;
  if (on('parked')) return html(parkingPage(s.domain));
  if (on('unknown-name'))
    return html(unknownPage(HOSTS.find((h) => h.name === s.host)!.marks.unknownName[0]), 404);
  // another server at a second address, which knows the name from before
  if (r.address === FORMER && s.stage === 'launched') return html(formerPage(s, path));
  const goal = preferredHost(s);
  const shared = `${s.slug}.${hostFacts(s.host).suffix}`;
  if (on('shared-name')) return redirect(`https://${shared}${path}${r.query}`);
  if (!r.secure && !on('http-stays'))
    return redirect(
      on('detour') && path === '/' ? `https://${r.host}/start/` : `https://${r.host}${path}${r.query}`,
      on('temporary') ? 302 : 301,
    );
  if (on('detour') && path === '/start/') return redirect(`https://${r.host}/`);
  if (on('challenge')) return html(challengePage(), 403);
  if (r.host !== goal && on('www-dead')) return html(unknownPage('No such host here'), 404);
  if (r.host !== goal && !on('www-stays'))
    return redirect(
      on('path-lost') ? `https://${goal}/` : `https://${goal}${path}${r.query}`,
      on('temporary-forward') ? 302 : 301,
    );
  if (s.stage !== 'launched') return beforeLaunch(s, r, on, year);
  if (on('holding-left') && !asset(s, path, on)) return html(holdingPage(s, false));
  const moved = FORMER_PATHS.find(([from]) => from === path);
  if (moved && !on('old-404')) return redirect(`https://${goal}${moved[1]}`);
  switch (path) {
    case '/robots.txt':
      return robots(s, on, goal);
    case '/sitemap.xml':
      if (!on('no-sitemap')) return sitemap(s, on, goal, year);
      break;
    case '/.well-known/security.txt':
      return text(
        `Contact: mailto:hello@${s.domain}\nExpires: ${on('ended-contact') ? '2024-01-01T00:00:00Z' : `${year + 1}-12-31T00:00:00Z`}\n`,
      );
    case '/.git/HEAD':
      if (on('repository')) return text('ref: refs/heads/main\n');
      break;
    case '/coming-soon/':
      if (on('holding-found')) return html(holdingPage(s, true));
      break;
    case '/thanks/':
      return html(thanksPage(s, !on('hidden-open')));
    case '/old-gate/':
      if (on('link-detour')) return redirect(`https://${goal}/visit/`);
      break;
    case '/pictures/':
      if (on('listing')) return html(listingPage(path));
      break;
  }
  const answer = sitePage(s, r, 'live', '/', on, year);
  // an old copy for everybody but those who ask the cache to look again
  if (on('old-copy') && path === '/' && !/no-cache/.test(r.headers['cache-control'] ?? ''))
    return {
      ...answer,
      headers: { ...answer.headers, age: '86000' },
      body: String(answer.body).replace('Begin with', 'Closed for the winter. Begin with'),
    };
  return answer;
}

function stagingAnswer(s: PracticeSite, r: WebRequest, prefix: string, on: Faults, year: number): WebAnswer {
  if (!r.secure) return redirect(`https://${r.host}${r.path}${r.query}`);
  const { user, password } = keyOf(s);
  const known = r.headers.authorization === `Basic ${Buffer.from(`${user}:${password}`).toString('base64')}`;
  if (!on('unlocked') && !on('left-open') && !known)
    return {
      status: 401,
      headers: { 'content-type': 'text/plain', 'www-authenticate': 'Basic realm="Draft"' },
      body: 'Who is there?',
    };
  if (r.path === '/robots.txt')
    return text(on('disallow-only') ? 'User-agent: *\nDisallow: /\n' : 'User-agent: *\nDisallow:\n');
  if (r.path + '/' === prefix) return redirect(`https://${r.host}${prefix}`);
  const answer = sitePage(s, { ...r, path: `/${r.path.slice(prefix.length)}` }, 'staging', prefix, on, year);
  if (!on('open') && !on('disallow-only')) answer.headers['x-robots-tag'] = 'noindex';
  return answer;
}

function sitePage(
  s: PracticeSite,
  r: WebRequest,
  environment: PracticeEnvironment,
  prefix: string,
  on: Faults,
  year: number,
): WebAnswer {
  const file = asset(s, r.path, on);
  if (file) return file;
  const pages = pagesOf(s);
  const data = pages.find((p) => p.path === r.path) ?? extraPages(s, on).find((p) => p.path === r.path);
  if (on('server-fault') && data?.path === '/news/') return text('internal fault', 'text/plain', 500);
  if (!data)
    return on('soft-404') && environment === 'live'
      ? html(unknownPage('We could not find this, but look around'))
      : html(unknownPage('No such page'), 404);
  if (data.path === '/' && on('sample-home')) return html(samplePage());
  const set: PageSetting = {
    site: s,
    origin: `${r.secure ? 'https' : 'http'}://${r.host}`,
    prefix,
    environment,
    on,
    year,
    stagingOrigin: `https://${s.staging.host}${s.staging.path}`,
  };
  const headers: Record<string, string> = {
    ...(on('latin') ? { 'content-type': 'text/html' } : {}),
    ...(environment === 'live' && data.path === '/'
      ? {
          'set-cookie': on('loose-cookie')
            ? 'firth_session=1; Path=/'
            : 'firth_session=1; Path=/; Secure; HttpOnly; SameSite=Lax',
        }
      : {}),
  };
  return {
    ...html(renderPage(data, pages, set), 200, headers),
    ...(on('slow') && environment === 'live' ? { delayMs: 1000 } : {}),
  };
}

/** The network with profiles: of the sites, and of the template’s maker. */
function elsewhere(path: string): WebAnswer {
  const site = SITES.find((s) => path === `/${s.slug}`);
  if (site) return html(profilePage(site.name));
  return path === '/template-maker'
    ? html(profilePage('Template House'))
    : html(unknownPage('Nobody of this name is here'), 404);
}

const zipped = new Map<string, Buffer>();

/** Headers that a live host sends with everything. */
function hostHeaders(answer: WebAnswer, r: WebRequest, on: Faults): void {
  if (r.secure && !on('no-hsts'))
    answer.headers['strict-transport-security'] = 'max-age=31536000; includeSubDomains';
  if (!on('bare-headers'))
    Object.assign(answer.headers, {
      'x-content-type-options': 'nosniff',
      'content-security-policy': "frame-ancestors 'self'",
      'referrer-policy': 'strict-origin-when-cross-origin',
    });
  answer.headers.server = on('version-shown') ? 'tideway/2.4.1' : 'tideway';
}

/** What a hand at the site changes of an answer, before it is compressed. */
export type WebEdit = (r: WebRequest, answer: WebAnswer) => WebAnswer;

export function answerWeb(
  r: WebRequest,
  switches: FaultSwitches,
  now: Date,
  edit: WebEdit = (_, answer) => answer,
): WebAnswer {
  const hit = siteOf(r.host, r.path);
  const year = now.getUTCFullYear();
  const beside = SITES.find((s) => placesBefore(s).some((p) => p.host === r.host));
  const subdomain = SITES.find((s) => subdomainOf(s) === r.host);
  const shared = SITES.find((s) => `${s.slug}.${hostFacts(s.host).suffix}` === r.host);
  let answer: WebAnswer;
  let plain = false;
  if (hit) {
    const on = switches.reader(hit.site.slug, hit.environment);
    plain = on('uncompressed') && hit.environment === 'live';
    answer =
      hit.environment === 'live'
        ? liveAnswer(hit.site, r, on, year)
        : stagingAnswer(hit.site, r, hit.prefix, on, year);
    answer.headers = { ...answer.headers };
    if (hit.environment === 'live') hostHeaders(answer, r, on);
  } else if (subdomain) answer = html(unknownPage('Tickets are sold at the door'));
  else if (r.host === new URL(SHOAL).hostname) answer = elsewhere(r.path);
  else if (HOSTS.some((h) => r.host === `www.${hostFacts(h.name).suffix}`))
    answer = text('A hosting product of the firth');
  else if (shared) answer = sitePage(shared, r, 'live', '/', switches.reader(shared.slug, 'live'), year);
  else
    answer =
      beside && r.path === '/robots.txt'
        ? text('User-agent: *\nDisallow:\n')
        : html(unknownPage('No site is configured at this address'), 404);
  answer = edit(r, answer);
  const type = answer.headers['content-type'] ?? '';
  if (!plain && r.acceptsGzip && /^(text|application)\//.test(type) && answer.body.length > 500) {
    const body = Buffer.isBuffer(answer.body) ? answer.body : Buffer.from(answer.body);
    const key = createHash('sha1').update(body).digest('base64');
    let small = zipped.get(key);
    if (!small) {
      small = zlib.gzipSync(body);
      if (zipped.size > 4000) zipped.clear();
      zipped.set(key, small);
    }
    return {
      ...answer,
      headers: { ...answer.headers, 'content-encoding': 'gzip', vary: 'accept-encoding' },
      body: small,
    };
  }
  return answer;
}

const KINDS: [string, LeafKind | 'silent'][] = [
  ['tls-silent', 'silent'],
  ['expired', 'expired'],
  ['self-signed', 'self-signed'],
  ['wrong-name', 'wrong-name'],
  ['ends-soon', 'soon'],
  ['no-intermediate', 'no-chain'],
  ['weak-key', 'weak-key'],
];

/**
 * A site's certificate names and kind: both hosts of the live site, or the one host alone; and whether old
 * versions are spoken.
 */
export function certificateFor(
  host: string,
  switches: FaultSwitches,
): { names: string[]; kind: LeafKind | 'silent'; old: boolean } {
  const site = SITES.find((s) => host === s.domain || host === `www.${s.domain}`);
  const subdomain = SITES.find((s) => subdomainOf(s) === host);
  if (subdomain && switches.isOn(subdomain.slug, 'live', 'subdomain-plain'))
    return { names: [host], kind: 'silent', old: false };
  if (!site) return { names: [host], kind: 'good', old: false };
  const on = switches.reader(site.slug, 'live');
  return {
    names: [preferredHost(site), otherHost(site)],
    kind: KINDS.find(([fault]) => on(fault))?.[1] ?? 'good',
    old: on('old-tls'),
  };
}
