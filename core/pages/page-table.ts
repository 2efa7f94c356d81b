/** All pages of an audit, a line each. Pure: from evidence that was collected and the findings it was judged by. */
import { descriptionLength } from '#core/checks/catalogue/metadata/description-length';
import { titleLength } from '#core/checks/catalogue/metadata/title-length';
import { linksAnswer } from '#core/checks/catalogue/indexing/links-answer';
import { parametersOf } from '#core/checks/engine/checklist';
import type { Check } from '#core/checks/kit/check';
import { DefaultTexts, textOf, type TextField } from '#core/checks/kit/default-texts';
import { sharedTexts } from '#core/checks/kit/uniqueness';
import type { ReadPage } from '#core/checks/view/read-page';
import type { SiteView } from '#core/checks/view/site-view';
import { mayFetch } from '#core/extract/robots';
import type { Checklist } from '#core/facts/checklist';
import { finalStatus, lastAnswer, type PageEvidence } from '#core/facts/evidence';
import { SEVERITIES, type Finding, type Severity } from '#core/facts/finding';
import { memoizeWhile } from '#core/remembering';
import { foldSpace } from '#core/text/fold';
import { LISTING_SIZE, type LineLimits } from '#core/text/width';
import { textFit, type TextRoom } from './fit';
import type { LineText, PageLine } from './page-line';

const LENGTHS: Record<TextField, Check> = {
  title: titleLength as Check,
  description: descriptionLength as Check,
};

/** What a listing holds, by the checklist that the site is judged by. */
export function roomsOf(checklist: Pick<Checklist, 'items'> | undefined): Record<TextField, TextRoom> {
  const room = (field: TextField): TextRoom => {
    const check = LENGTHS[field];
    const item = checklist?.items.find((i) => i.check === check.id) ?? { check: check.id };
    const { least, most, width } = parametersOf(check, item) as unknown as LineLimits;
    return { least, most, width, size: LISTING_SIZE[field] };
  };
  return { title: room('title'), description: room('description') };
}

/** Findings that fail at a page, and the gravest. */
interface Faults {
  count: number;
  worst: Severity;
}

function faultsByPage(findings: readonly Finding[]): Map<string, Faults> {
  const found = new Map<string, Faults>();
  for (const { outcome, severity, places } of findings) {
    if (outcome !== 'failed') continue;
    for (const place of new Set(
      places.filter((p) => p.outcome === 'failed' && !p.accepted).map((p) => p.place),
    )) {
      const before = found.get(place);
      const worst =
        before && SEVERITIES.indexOf(before.worst) < SEVERITIES.indexOf(severity) ? before.worst : severity;
      found.set(place, { count: (before?.count ?? 0) + 1, worst });
    }
  }
  return found;
}

/** Where a link of a page leads in the end: redirects that the audit followed are followed. */
export function leadsTo(view: SiteView, page: ReadPage, href: string): string | undefined {
  const url = page.target(href);
  return url === undefined ? undefined : (view.asked.get(url)?.url ?? url);
}

/** Which pages link to each address, from a link of their own to another page. */
export const linkedFrom = memoizeWhile((view: SiteView): ReadonlyMap<string, ReadonlySet<ReadPage>> => {
  const found = new Map<string, Set<ReadPage>>();
  for (const page of view.pages)
    for (const { href } of page.facts.anchors) {
      const url = leadsTo(view, page, href);
      if (url === undefined || url === page.url) continue;
      const pages = found.get(url);
      if (pages) pages.add(page);
      else found.set(url, new Set([page]));
    }
  return found;
});

/** How many links lead from the home page to each page, the fewest there are. */
function clicksFrom(view: SiteView): ReadonlyMap<ReadPage, number> {
  const found = new Map<ReadPage, number>(view.home ? [[view.home, 0]] : []);
  // a map grows while it is walked, so this goes on with what was just found
  for (const [page, clicks] of found)
    for (const { href } of page.facts.anchors) {
      const next = view.byUrl.get(leadsTo(view, page, href) ?? '');
      if (next && !found.has(next)) found.set(next, clicks + 1);
    }
  return found;
}

/** Why a search engine does not list what an address answers; nothing where it may. */
function keptOutBy(
  view: SiteView,
  { chain, url }: PageEvidence,
  read: ReadPage | undefined,
): string | undefined {
  const status = finalStatus(chain);
  if (status === undefined) return chain.error?.message ?? 'no answer';
  if (!read)
    return status >= 200 && status < 300
      ? 'it cannot be read as a page of this site'
      : `it answers ${status}`;
  const robots = view.evidence.robots.facts;
  const { allowed, rule } = robots ? mayFetch(robots, '*', url) : { allowed: true, rule: undefined };
  if (!allowed) return `robots.txt, line ${rule!.line}: ${rule!.raw.trim()}`;
  if (read.keptOut)
    return `${read.keptOut.directive} in a ${read.keptOut.from === 'meta' ? 'meta tag' : 'header'}`;
  return read.canonical && read.canonical !== url ? `canonical is ${read.canonical}` : undefined;
}

const words = (text: string): number => text.match(/[\p{L}\p{N}][\p{L}\p{N}\p{M}'’-]*/gu)?.length ?? 0;

/** What is known of all pages, to make each one’s line. */
interface Known {
  view: SiteView;
  rooms: Record<TextField, TextRoom>;
  defaults: DefaultTexts;
  shared: Record<TextField, ReadonlySet<ReadPage>>;
  linked: ReadonlyMap<string, ReadonlySet<ReadPage>>;
  clicks: ReadonlyMap<ReadPage, number>;
  faults: ReadonlyMap<string, Faults>;
  dead: ReadonlySet<string>;
}

function lineText(read: ReadPage | undefined, field: TextField, known: Known): LineText {
  const text = read && textOf(read, field);
  const from = read && known.defaults.behind(read, field)?.of;
  return {
    ...textFit(text, known.rooms[field]),
    ...(read && known.shared[field].has(read) ? { shared: true as const } : {}),
    ...(from ? { from } : {}),
  };
}

/** What the HTML of a page says of itself. */
function saidBy(read: ReadPage | undefined, known: Known) {
  if (!read) return { words: 0, linksOut: 0, broken: 0 };
  const { facts, canonical, url } = read;
  const heading = facts.headings.find((h) => h.level === 1 && h.text)?.text;
  const image = read.openGraph('og:image')?.content.trim();
  const picture = image ? read.target(image) : undefined;
  return {
    ...(canonical ? { canonical } : {}),
    ...(canonical && canonical !== url ? { copyOf: true as const } : {}),
    ...(facts.lang?.value ? { language: facts.lang.value } : {}),
    ...(heading ? { heading: foldSpace(heading) } : {}),
    ...(picture ? { picture } : {}),
    words: words(facts.text),
    linksOut: facts.anchors.length,
    broken: facts.anchors.filter((a) => known.dead.has(read.target(a.href) ?? '')).length,
  };
}

/** How an address answered. */
function answered({ url, requested, chain }: PageEvidence) {
  const answer = lastAnswer(chain);
  const firstByte = answer?.timing.firstByte;
  return {
    url,
    ...(requested === url ? {} : { asked: requested }),
    status: finalStatus(chain) ?? null,
    ...(chain.end === 'error' ? { error: chain.error?.message ?? 'no answer' } : {}),
    bytes: answer?.bytes?.encoded ?? null,
    firstByte: firstByte === undefined ? null : Math.round(firstByte),
  };
}

function lineOf(page: PageEvidence, known: Known): PageLine {
  const { view, linked, faults } = known;
  const { url, via } = page;
  const read = view.byUrl.get(url);
  const keptOut = keptOutBy(view, page, read);
  const linksIn = linked.get(url)?.size ?? 0;
  const own = faults.get(url);
  return {
    ...answered(page),
    ...(keptOut ? { keptOut } : {}),
    title: lineText(read, 'title', known),
    description: lineText(read, 'description', known),
    ...saidBy(read, known),
    linksIn,
    depth: (read && known.clicks.get(read)) ?? null,
    inSitemap: view.inSitemap.has(url),
    ...(linksIn === 0 && via !== 'home' ? { orphan: true as const } : {}),
    faults: own?.count ?? 0,
    ...(own ? { worst: own.worst } : {}),
  };
}

/** What pages are looked at with, beside the evidence. */
export interface PagesInput {
  view: SiteView;
  findings: readonly Finding[];
  rooms: Record<TextField, TextRoom>;
}

/** @returns a line for each address that was read, in the order of the audit; each page once */
export const pageTable = memoizeWhile(({ view, findings, rooms }: PagesInput): PageLine[] => {
  const broken = findings.find((f) => f.check === linksAnswer.id)?.places ?? [];
  const known: Known = {
    view,
    rooms,
    defaults: new DefaultTexts(view, view.brief, view.profile),
    shared: {
      title: sharedTexts(view.countable, (p) => textOf(p, 'title')),
      description: sharedTexts(view.countable, (p) => textOf(p, 'description')),
    },
    linked: linkedFrom(view),
    clicks: clicksFrom(view),
    faults: faultsByPage(findings),
    dead: new Set(broken.filter((p) => p.outcome === 'failed').map((p) => p.place)),
  };
  const seen = new Set<string>();
  return view.evidence.pages
    .filter(({ url }) => !seen.has(url) && seen.add(url))
    .map((page) => lineOf(page, known));
});
