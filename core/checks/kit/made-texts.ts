/**
 * Titles and descriptions made up for pages of which nobody has written one: each passes the checks it is proposed for,
 * or there is none.
 */
import type { PageFacts } from '#core/extract/html';
import { foldLoosely, foldSpace } from '#core/text/fold';
import { LISTING_SIZE, lineFit, type LineLimits } from '#core/text/width';
import type { ReadPage } from '#core/checks/view/read-page';
import type { CheckContext } from './check';
import { FOLDED_DEFAULTS, pageWord } from './page-titles';

/** What fits a search listing, in characters and pixels; checklists may say otherwise. Common practice. */
export const TITLE_LIMITS: LineLimits = { least: 15, most: 60, width: 560 };
export const DESCRIPTION_LIMITS: LineLimits = { least: 80, most: 150, width: 900 };

type Asked = Pick<CheckContext, 'view' | 'brief' | 'profile'>;

/** Of how many other pages the words are looked at. */
const OTHERS = 30;
/** Of a text, so much is read. */
const LONGEST = 20_000;
const SENTENCES = new Intl.Segmenter('en', { granularity: 'sentence' });
/** A sentence is whole: it begins with a letter or figure and ends as one does. */
const WHOLE = /^[\p{L}\p{N}“"'¿¡(].*[\p{L}\p{N})”"']{2}[.!?…。！？]["”’)]?$/u;
/** Lines of a footer, a banner or a menu. Common practice. */
const ASIDE =
  /©|\(c\)|copyright|all rights reserved|cookie|powered by|privacy|impressum|terms of|skip to|javascript|https?:\/\/|www\./i;

/** The text after the main heading, without what it says of itself in smaller ones. */
function bodyOf({ headings, text }: PageFacts): string {
  const main = headings.find((h) => h.level === 1)?.text;
  const at = main ? text.indexOf(main) : -1;
  return text.slice(at < 0 ? 0 : at + main!.length).slice(0, LONGEST);
}

/** Without the headings that stand before it, which end without a stop. */
function withoutHeadings(sentence: string, headings: readonly string[]): string {
  let rest = sentence;
  for (let cut = true; cut;) {
    const heading = headings.find((h) => h && rest.startsWith(`${h} `));
    cut = heading !== undefined;
    if (heading !== undefined) rest = rest.slice(heading.length).trimStart();
  }
  return rest;
}

/**
 * The first whole sentences of a page that stand on no other one and fit together.
 * @param wanted what fits a search listing, as the checklist has it
 */
export function madeDescription(
  page: ReadPage | undefined,
  { view, profile }: Asked,
  wanted = DESCRIPTION_LIMITS,
): string | undefined {
  if (!page) return undefined;
  const others = view.pages.filter((p) => p !== page).slice(0, OTHERS);
  const headings = page.facts.headings.map((h) => h.text).sort((a, b) => b.length - a.length);
  const most = Math.min(wanted.most, profile.descriptionLimit ?? Infinity);
  const limits = { ...wanted, most };
  let made = '';
  for (const { segment } of SENTENCES.segment(bodyOf(page.facts))) {
    const sentence = foldSpace(withoutHeadings(segment.trim(), headings));
    const isOwn = WHOLE.test(sentence) && !ASIDE.test(sentence) && sentence.split(' ').length > 3;
    if (!isOwn || others.some((p) => p.facts.text.includes(sentence))) {
      // what follows would not follow from what was said
      if (made) break;
      continue;
    }
    const next = made ? `${made} ${sentence}` : sentence;
    if (!lineFit(next, LISTING_SIZE.description, { ...limits, least: 1 }).fits) {
      if (made) break;
      continue;
    }
    made = next;
  }
  return lineFit(made, LISTING_SIZE.description, limits).fits ? made : undefined;
}

/** Texts that a page may be called by, the best first. */
function namesOf(page: ReadPage | undefined, url: string): string[] {
  const heading = page?.facts.headings.find((h) => h.level === 1)?.text;
  return [...(heading ? [foldSpace(heading)] : []), pageWord(url)].filter(
    (name) => !FOLDED_DEFAULTS.includes(foldLoosely(name)),
  );
}

/**
 * A title for each of some pages: its heading or a word of its address, with the site's name where it fits; none that
 * another page has.
 * @param limits what fits a search listing, as the checklist has it
 * @returns a function from address to title; undefined where none can be made
 */
export function titleMaker(
  { view, brief }: Asked,
  limits = TITLE_LIMITS,
): (url: string) => string | undefined {
  const taken = new Set(view.pages.flatMap((p) => p.facts.titles.map((t) => foldLoosely(t.text))));
  const made = new Map<string, string | undefined>();
  const { name } = brief;
  const isNew = (title: string): boolean =>
    lineFit(title, LISTING_SIZE.title, limits).fits &&
    !taken.has(foldLoosely(title)) &&
    !FOLDED_DEFAULTS.includes(foldLoosely(title));
  return (url) => {
    if (made.has(url)) return made.get(url);
    const page = view.byUrl.get(url);
    const isHome = page !== undefined && page === view.home;
    const names = namesOf(page, url);
    const candidates = [
      ...(isHome && name ? [...(brief.tagline ? [`${name} – ${brief.tagline}`] : []), name] : []),
      ...(name ? names.map((n) => (n.includes(name) ? n : `${n} – ${name}`)) : []),
      // the home page's title names the site
      ...(isHome && name ? [] : names),
    ];
    const title = candidates.find(isNew);
    if (title !== undefined) taken.add(foldLoosely(title));
    made.set(url, title);
    return title;
  };
}
