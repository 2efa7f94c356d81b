/**
 * A holding page for a site that is not open yet: one HTML file without outside resources, and the lines by which
 * common web servers show it. Pure.
 */
import { parse, wcagContrast } from 'culori';
import type { Brief } from '#core/facts/brief';

export interface HoldingSettings {
  name: string;
  tagline: string;
  /** A sentence of one’s own; without it the page says that the site opens soon. */
  text: string;
  contactEmail: string;
  phone: string;
  /** YYYY-MM-DD; empty where it is not to be said. */
  opensOn: string;
  /** Any CSS colour. */
  colour: string;
  /** BCP 47. */
  language: string;
  /** A data: address of a picture; empty for none. */
  logo: string;
}

/** What stands on the page in a language; English where nobody has written another. */
interface HoldingWords {
  soon: string;
  opens: (date: string) => string;
  write: string;
  call: string;
}
const WORDS: Record<string, HoldingWords> = {
  en: {
    soon: 'Our new site opens soon.',
    opens: (date) => `Our new site opens on ${date}.`,
    write: 'Write to',
    call: 'Call',
  },
  de: {
    soon: 'Unsere neue Website öffnet bald.',
    opens: (date) => `Unsere neue Website öffnet am ${date}.`,
    write: 'Schreiben Sie an',
    call: 'Rufen Sie an:',
  },
  fr: {
    soon: 'Notre nouveau site ouvre bientôt.',
    opens: (date) => `Notre nouveau site ouvre le ${date}.`,
    write: 'Écrivez à',
    call: 'Appelez le',
  },
  es: {
    soon: 'Nuestra nueva web abre pronto.',
    opens: (date) => `Nuestra nueva web abre el ${date}.`,
    write: 'Escriba a',
    call: 'Llame al',
  },
  it: {
    soon: 'Il nostro nuovo sito apre presto.',
    opens: (date) => `Il nostro nuovo sito apre il ${date}.`,
    write: 'Scrivete a',
    call: 'Chiamate il',
  },
  nl: {
    soon: 'Onze nieuwe website opent binnenkort.',
    opens: (date) => `Onze nieuwe website opent op ${date}.`,
    write: 'Schrijf naar',
    call: 'Bel',
  },
};

/** What the brief says already. */
export function holdingFromBrief(
  brief: Brief,
  { name, launchDate }: { name: string; launchDate: string | null },
) {
  const settings: HoldingSettings = {
    name: brief.name ?? name,
    tagline: brief.tagline ?? '',
    text: '',
    contactEmail: brief.contactEmail ?? '',
    phone: brief.phone ?? '',
    opensOn: launchDate ?? '',
    colour: brief.colours?.[0]?.value ?? '#1b2430',
    language: brief.languages?.[0] ?? 'en',
    logo: '',
  };
  return settings;
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** WCAG 2.2 SC 1.4.3 for text of this size. */
const LEAST_CONTRAST = 4.5;
const PAPER = '#ffffff';
const INK = '#1b2430';

/** A colour that can be read on the page’s paper. */
function readable(colour: string): string {
  return parse(colour) && wcagContrast(colour, PAPER) >= LEAST_CONTRAST ? colour : INK;
}

const PICTURE = /^data:image\/(?:png|jpeg|webp|gif|svg\+xml);base64,[A-Za-z0-9+/=]+$/;

function dateIn(language: string, day: string): string | undefined {
  const at = new Date(`${day}T00:00:00Z`);
  if (!/^\d{4}-\d\d-\d\d$/.test(day) || Number.isNaN(at.getTime())) return undefined;
  try {
    return new Intl.DateTimeFormat(language, { dateStyle: 'long', timeZone: 'UTC' }).format(at);
  } catch {
    // a tag that is none
    return new Intl.DateTimeFormat('en', { dateStyle: 'long', timeZone: 'UTC' }).format(at);
  }
}

/** @returns the whole page; what is typed into it stays text */
export function holdingPageHtml(settings: HoldingSettings): string {
  const { name, tagline, text, contactEmail, phone, opensOn, colour, language, logo } = settings;
  const words = WORDS[language.slice(0, 2).toLowerCase()] ?? WORDS.en!;
  const date = dateIn(language, opensOn);
  const says = text.trim() || (date ? words.opens(date) : words.soon);
  const picture = PICTURE.test(logo) ? logo : '';
  const bar = parse(colour) ? colour : INK;
  const tel = phone.replace(/[^+\d]/g, '');
  const reach = [
    contactEmail
      ? `<p>${words.write} <a href="mailto:${escaped(encodeURI(contactEmail))}">${escaped(contactEmail)}</a></p>`
      : '',
    tel ? `<p>${words.call} <a href="tel:${tel}">${escaped(phone)}</a></p>` : '',
  ].filter(Boolean);
  return `<!doctype html>
<html lang="${escaped(language)}">
<head>
<meta charset="utf-8">
<title>${escaped(name)}</title>
<meta name="robots" content="noindex">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="description" content="${escaped([name, tagline, says].filter(Boolean).join('. '))}">
<meta name="theme-color" content="${escaped(bar)}">
${picture ? `<link rel="icon" href="${picture}">\n` : ''}<style>
html{background:${PAPER};color:${INK};font:18px/1.55 system-ui,sans-serif}
body{margin:0;min-height:100vh;display:grid;align-content:center;justify-items:center;padding:24px;box-sizing:border-box;border-top:12px solid ${escaped(bar)}}
main{max-width:34rem;text-align:center}
img{max-width:180px;max-height:120px}
h1{font-size:2.2rem;line-height:1.15;margin:.4em 0 .2em;color:${escaped(readable(colour))}}
p{margin:.4em 0}
.tagline{font-size:1.15rem}
.says{margin-top:1.6em}
a{color:${escaped(readable(colour))}}
@media (prefers-color-scheme:dark){html{background:#14181f;color:#e8e6e0}h1,a{color:inherit}}
</style>
</head>
<body>
<main>
${picture ? `<img src="${picture}" alt="">\n` : ''}<h1>${escaped(name)}</h1>
${tagline ? `<p class="tagline">${escaped(tagline)}</p>\n` : ''}<p class="says">${escaped(says)}</p>
${reach.join('\n')}
</main>
</body>
</html>
`;
}

export const HOLDING_SERVERS = ['nginx', 'Apache'] as const;
export type HoldingServer = (typeof HOLDING_SERVERS)[number];

/** How some get past the holding page: a parameter, which a cookie then stands for, or by their addresses. */
export interface WayPast {
  name: string;
  value: string;
  addresses: readonly string[];
}

/** Of parameter and cookie: nothing that a configuration could read as more than a word. */
const PLAIN = /^[\w-]{1,64}$/;
const ADDRESS = /^[0-9a-f.:]{3,45}$/i;
export const FILE = 'holding.html';
const DAY_SECONDS = 86_400;

/** Whether there is a parameter that can be written into a configuration. */
export const isPlainWay = ({ name, value }: Pick<WayPast, 'name' | 'value'>): boolean =>
  PLAIN.test(name) && PLAIN.test(value);

const addressesOf = ({ addresses }: WayPast): string[] => addresses.filter((a) => ADDRESS.test(a));

function nginxLines(way: WayPast): string {
  const { name, value } = way;
  const past = isPlainWay(way)
    ? [
        `if ($arg_${name} = "${value}") {`,
        '  set $holding 0;',
        `  set $holding_cookie "${name}=${value}; Path=/; HttpOnly; SameSite=Lax";`,
        '}',
        `if ($cookie_${name} = "${value}") {`,
        '  set $holding 0;',
        '}',
      ]
    : [];
  return [
    `# within the site's own server block; ${FILE} lies in the folder that root names`,
    'set $holding 1;',
    'set $holding_cookie "";',
    ...past,
    ...addressesOf(way).flatMap((address) => [
      `if ($remote_addr = "${address}") {`,
      '  set $holding 0;',
      '}',
    ]),
    'add_header Set-Cookie $holding_cookie;',
    'if ($holding) {',
    '  return 503;',
    '}',
    'error_page 503 @holding;',
    'location @holding {',
    `  rewrite ^ /${FILE} break;`,
    `  add_header Retry-After ${DAY_SECONDS} always;`,
    '  add_header Cache-Control no-store always;',
    '}',
  ].join('\n');
}

const inPattern = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

function apacheLines(way: WayPast): string {
  const { name, value } = way;
  const asked = `(?:^|&)${name}=${value}(?:&|$)`;
  const isPast = isPlainWay(way);
  return [
    `# within the site's own virtual host; ${FILE} lies in its DocumentRoot (mod_rewrite, mod_headers)`,
    `ErrorDocument 503 /${FILE}`,
    'RewriteEngine On',
    `RewriteCond %{REQUEST_URI} !=/${FILE}`,
    ...(isPast
      ? [
          `RewriteCond %{QUERY_STRING} !${asked}`,
          `RewriteCond %{HTTP_COOKIE} !(?:^|;\\s*)${name}=${value}(?:;|$)`,
        ]
      : []),
    ...addressesOf(way).map((address) => `RewriteCond %{REMOTE_ADDR} !^${inPattern(address)}$`),
    'RewriteRule ^ - [R=503,L]',
    ...(isPast
      ? [`RewriteCond %{QUERY_STRING} ${asked}`, `RewriteRule ^ - [CO=${name}:${value}:%{HTTP_HOST}:0:/]`]
      : []),
    `Header always set Retry-After ${DAY_SECONDS} "expr=%{REQUEST_STATUS} == 503"`,
    'Header always set Cache-Control no-store "expr=%{REQUEST_STATUS} == 503"',
  ].join('\n');
}

/** Lines to paste: 503 with Retry-After (RFC 9110 15.6.4) for everybody but those who know the way past. */
export const holdingLines = (server: HoldingServer, way: WayPast): string =>
  server === 'nginx' ? nginxLines(way) : apacheLines(way);
