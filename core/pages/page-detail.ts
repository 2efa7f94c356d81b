/** One page opened: what it says, where that stands in its source, what leads to it and where it leads. */
import { overChanges, type PageChange } from './page-changes';
import { leadsTo, linkedFrom, pageTable, type PagesInput } from './page-table';
import { Origins, type Origin } from './provenance';
import type { PageLine } from './page-line';
import type { ReadPage } from '#core/checks/view/read-page';
import type { SiteView } from '#core/checks/view/site-view';
import { finalStatus, lastAnswer, type Header } from '#core/facts/evidence';
import type { Finding, PlaceResult, Severity } from '#core/facts/finding';
import type { PageFacts } from '#core/extract/html';
import { headingOf } from '#core/facts/heading';

/** A part of the page's source. */
interface Snippet {
  label: string;
  raw: string;
  line: number;
  column: number;
}
interface DetailLink {
  url: string;
  text: string;
  line: number;
  /** What the address answered, where it was asked. */
  status?: number;
}
interface PageFinding extends Pick<PlaceResult, 'outcome' | 'found' | 'expected' | 'raw' | 'reason'> {
  check: string;
  title: string;
  severity: Severity;
  accepted?: true;
}

export interface PageDetail {
  page: PageLine;
  origins: Origin[];
  snippets: Snippet[];
  headers: Header[];
  linksIn: { count: number; list: DetailLink[] };
  linksOut: { count: number; list: DetailLink[] };
  outline: { level: number; text: string; line: number }[];
  /** Each block as it came, and its fault where it does not parse. */
  jsonLd: { raw: string; line: number; error?: string }[];
  alternates: { language: string; url: string; returned: boolean | null }[];
  findings: PageFinding[];
  /** Against the audit before; null where that did not see the page. */
  changes: PageChange[] | null;
}

/** Links and headings of one answer. */
const MOST = 200;
/** Characters of a raw snippet. */
const RAW = 2000;

function snippetsOf({ titles, metas, links, lang }: PageFacts): Snippet[] {
  const spots = [
    ...titles.map((t) => ({ label: 'title', ...t, raw: t.raw + t.text })),
    ...metas.map((m) => ({ label: `meta ${m.name ?? m.property ?? m.httpEquiv ?? 'charset'}`, ...m })),
    ...links.map((l) => ({ label: `link ${l.rel.join(' ')}`, ...l })),
    ...(lang ? [{ label: 'html', ...lang }] : []),
  ];
  return spots
    .map(({ label, raw, line, column }) => ({ label, raw: raw.slice(0, RAW), line, column }))
    .sort((a, b) => a.line - b.line || a.column - b.column)
    .slice(0, MOST);
}

/** What an address answered, where the audit asked it. */
function statusOf(view: SiteView, url: string): number | undefined {
  const page = view.asked.get(url);
  if (page) return finalStatus(page.chain);
  const link = view.evidence.links.find((l) => l.url === url);
  return link && finalStatus(link.chain);
}

function linksOf(view: SiteView, read: ReadPage): PageDetail['linksOut'] {
  const { anchors } = read.facts;
  const list = anchors.slice(0, MOST).map(({ href, text, line }): DetailLink => {
    const url = read.target(href) ?? href;
    const status = statusOf(view, url);
    return { url, text, line, ...(status === undefined ? {} : { status }) };
  });
  return { count: anchors.length, list };
}

function linksTo(view: SiteView, url: string): PageDetail['linksIn'] {
  const pages = [...(linkedFrom(view).get(url) ?? [])];
  const list = pages.slice(0, MOST).map((page): DetailLink => {
    const anchor = page.facts.anchors.find((a) => leadsTo(view, page, a.href) === url);
    return { url: page.url, text: anchor?.text ?? '', line: anchor?.line ?? 0 };
  });
  return { count: pages.length, list };
}

function alternatesOf(view: SiteView, read: ReadPage): PageDetail['alternates'] {
  return read.alternates.slice(0, MOST).map(({ hreflang, href }) => {
    const url = read.target(href) ?? href;
    const other = view.byUrl.get(url);
    return {
      language: hreflang ?? '',
      url,
      returned: other ? other.alternates.some((l) => other.target(l.href) === read.url) : null,
    };
  });
}

function findingsAt(findings: readonly Finding[], url: string): PageFinding[] {
  return findings.flatMap(({ check, title, fault, severity, places }) =>
    places
      .filter((p) => p.place === url && p.outcome !== 'passed')
      .map(({ outcome, found, expected, raw, reason, accepted }) => ({
        check,
        title: headingOf({ title, fault, outcome }),
        severity,
        outcome,
        found,
        expected,
        raw: raw?.slice(0, RAW),
        reason,
        ...(accepted ? { accepted: true as const } : {}),
      })),
  );
}

/** What the HTML of a page holds. */
function contentOf(view: SiteView, read: ReadPage | undefined) {
  if (!read) {
    const none = { count: 0, list: [] };
    return { origins: [], snippets: [], linksOut: none, outline: [], jsonLd: [], alternates: [] };
  }
  const { facts } = read;
  return {
    origins: new Origins(view).of(read),
    snippets: snippetsOf(facts),
    linksOut: linksOf(view, read),
    outline: facts.headings.slice(0, MOST).map(({ level, text, line }) => ({ level, text, line })),
    jsonLd: facts.jsonLd.slice(0, 20).map(({ raw, line, error }) => ({
      raw: raw.slice(0, 10 * RAW),
      line,
      ...(error ? { error } : {}),
    })),
    alternates: alternatesOf(view, read),
  };
}

/**
 * @param before what the audit before saw of the site, where there was one
 * @returns undefined for a page that the audit did not see
 */
export function pageDetail(url: string, input: PagesInput, before?: SiteView): PageDetail | undefined {
  const { view, findings } = input;
  const page = pageTable(input).find((p) => p.url === url);
  const evidence = view.evidence.pages.find((p) => p.url === url);
  if (!page || !evidence) return undefined;
  const read = view.byUrl.get(url);
  return {
    page,
    ...contentOf(view, read),
    headers: lastAnswer(evidence.chain)?.headers ?? [],
    linksIn: linksTo(view, url),
    findings: findingsAt(findings, url),
    changes: overChanges(before, url, read, page.status),
  };
}
