/**
 * What gives away a page that is not the site's own: a parking, unknown-name, holding, sample or sign-in page.
 * Marks of the host profile and the brief count wherever they stand; the common ones only where the page is
 * little else.
 */
import { hostOf } from '#core/extract/address';
import type { PageFacts } from '#core/extract/html';
import { foldLoosely } from '#core/text/fold';

/** A page, as far as marks are looked for on it. */
export interface Marked {
  url: string;
  facts: Pick<PageFacts, 'text' | 'textLength' | 'titles' | 'headings' | 'anchors' | 'forms'>;
}

/** What such a page calls the site, if it names it: "our new website is", "we are". Folded. */
const SITE = '(?:(?:our|the|this|your) )?(?:(?:new|own) )?(?:web ?site|web ?page|home ?page|site|page)';
const SUBJECT = `(?:(?:${SITE}(?: is)?|we are|we re|we will be|it is)(?: (?:currently|still|now))? )?`;
const DOMAIN = '(?:(?:this|the) )?domain(?: name)?';

/**
 * Common phrases (common practice, met on such pages). Each is a whole title or main heading, or a part of one
 * between dashes and bars: "Coming soon: the autumn cider" and "Houses under construction" are none.
 */
const COMMON = {
  parking: `(?:${DOMAIN}(?: is| has been)? parked.*|(?:${DOMAIN}|.*\\.[a-z]{2,}) (?:is |may be )?for sale|buy this domain|parked (?:free of charge|domain).*|(?:${DOMAIN}) (?:has|is) expired)`,
  unknownName: `(?:no site (?:is configured|found)(?: .*)?|there is no (?:web ?)?site here(?: .*)?|unknown (?:web ?)?site|(?:web ?)?site is not known here|(?:this )?(?:web ?)?site is not configured(?: .*)?|no such site(?: .*)?|${DOMAIN} is not connected(?: .*)?)`,
  holding: `(?:${SUBJECT}(?:coming|launching|opening) soon|${SUBJECT}under construction|${SITE} is on its way)`,
  samplePage:
    '(?:sample page|your new site is ready(?: .*)?|welcome to your new site|this is an example page|just another (?:web ?)?site)',
  signIn:
    '(?:please )?(?:log|sign) ?in(?: (?:to|with|for|please)\\b.*)?|sign ?in required|authentication required',
  postList: '(?:hello world|my first post)',
} as const;
export type MarkKind = keyof typeof COMMON;

const wholly = Object.fromEntries(
  Object.entries(COMMON).map(([kind, phrase]) => [kind, new RegExp(`^(?:${phrase})$`)]),
) as Record<MarkKind, RegExp>;

/** A page that is little else has fewer characters of text and fewer links inside its site than these. */
const FEW_CHARACTERS = 600;
const FEW_LINKS = 4;
/** Longer than "http://" and no longer than "https://". */
const SCHEME = 8;

/** Whether a page is short and leads nowhere within its site. */
function isLittleElse({ url, facts }: Marked): boolean {
  if (facts.textLength > FEW_CHARACTERS) return false;
  const host = hostOf(url);
  const origin = url.slice(0, url.indexOf('/', SCHEME) + 1) || url;
  let inside = 0;
  for (const { href } of facts.anchors) {
    // most links inside begin like the page itself, which is told at once
    if (href === url || !(href.startsWith(origin) || hostOf(href) === host)) continue;
    if (++inside >= FEW_LINKS) return false;
  }
  return true;
}

/** With no more text than this, each of its sentences stands out as a heading would. */
const HARDLY_ANY = 160;

/** Where a post of a list has its name, the list itself has the main heading. */
const HEADINGS: Partial<Record<MarkKind, number>> = { postList: 3 };

/** Title and main heading in their parts, folded, without what ends a sentence. */
function* headlines({ facts }: Marked, deepest: number): Generator<string> {
  const headings = facts.headings.filter((h) => h.level <= deepest).map((h) => h.text);
  // a page without any heading begins with what it has to say, and one of a few words is a heading as a whole
  let rest = facts.text.slice(0, HARDLY_ANY);
  for (const heading of headings) rest = rest.replace(heading, '.');
  const lead =
    facts.textLength <= HARDLY_ANY ? [rest] : facts.headings.length ? [] : [rest.split(/[.!?…]\s/)[0]!];
  for (const text of [...facts.titles.map((t) => t.text), ...headings, ...lead])
    for (const part of text.split(/\s+[-–—|·•‹›«»]\s+|\s*[|·•‹›«»]\s*|[.!?…]+(?:\s+|$)/)) {
      const folded = foldLoosely(part)
        .replace(/[’']/g, ' ')
        .replace(/[\s.!?…,]+$/, '')
        .trim();
      if (folded) yield folded;
    }
}

/**
 * Pages that web servers show before anybody has put a site there, each by two marks that both have to be carried: one
 * alone stands on pages about servers too. Those of Debian's packages nginx 1.22, apache2 2.4, lighttpd 1.4.69,
 * caddy 2.6.2 and tomcat10 as they are; those below them from memory.
 */
const SERVER_PAGES: [first: string, second: string][] = [
  ['Welcome to nginx', 'the nginx web server is successfully installed and working'],
  ['Apache2 Debian Default Page', 'used to test the correct operation of the Apache2 server'],
  ['Placeholder page', 'The owner of this web site has not put up any web pages yet'],
  ['Caddy works', 'Your web server is working'],
  ['Apache Tomcat', "it means you've setup Tomcat successfully"],
  ['Apache2 Ubuntu Default Page', 'used to test the correct operation of the Apache2 server'],
  ['Test Page for', 'used to test the proper operation of'],
  ['HTTP Server Test Page', 'used to test the proper operation of'],
  ['IIS Windows', 'Internet Information Services'],
];
const FOLDED_SERVER_PAGES = SERVER_PAGES.map((marks) => marks.map(foldLoosely));
/** Such a page says what it is within so many characters. */
const SERVER_PAGE_TEXT = 1500;

/** @returns what gives away a web server's own default page, or undefined */
export function serverPage({ facts }: Pick<Marked, 'facts'>): string | undefined {
  const titles = facts.titles.map((t) => t.text).join(' ');
  const all = foldLoosely(`${titles} ${facts.text.slice(0, SERVER_PAGE_TEXT)}`);
  const known = FOLDED_SERVER_PAGES.findIndex((marks) => marks.every((mark) => all.includes(mark)));
  if (known >= 0) return SERVER_PAGES[known]![0];
  // all that some servers say, without any title (from memory)
  return !titles && /^it works ?!?$/.test(foldLoosely(facts.text)) ? 'It works!' : undefined;
}

/** Fields that only a sign-in form has. */
const asksForPassword = ({ facts }: Marked): boolean =>
  facts.forms.some((f) => f.fields.some((field) => field.type === 'password'));

/**
 * @param name the site's own, which such a page may begin with ("The Kite Works is coming soon")
 * @returns the words that give the page away, or undefined
 */
export function commonMark(page: Marked, kind: MarkKind, name?: string): string | undefined {
  if ((kind === 'signIn' && !asksForPassword(page)) || !isLittleElse(page)) return undefined;
  const own = name ? foldLoosely(name) : '';
  for (const words of headlines(page, HEADINGS[kind] ?? 1)) {
    const rest =
      own && words.startsWith(own)
        ? words
            .slice(own.length)
            .replace(/^ (?:is|are) /, '')
            .trim()
        : words;
    if (wholly[kind].test(rest)) return words;
  }
  return undefined;
}
