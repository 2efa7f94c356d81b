/** The columns that a table of pages may have, on the screen and as CSV. */
import { bytesInWords } from '#core/text/bytes';
import Papa from 'papaparse';
import { SEVERITIES } from '#core/facts/finding';
import { quantity } from '#core/text/quantity';
import type { LineText, PageLine } from './page-line';

export interface PageColumn {
  key: string;
  title: string;
  /** Shown unless a person has chosen otherwise. */
  usual?: true;
  isNumber?: true;
  /** What stands in a spreadsheet; on the screen unless it is drawn otherwise. */
  text: (page: PageLine) => string | number;
  /** What it is sorted by, the least first; its text where this is left out. */
  order?: (page: PageLine) => number | string;
}

const FITS: Record<LineText['fit'], string> = {
  missing: 'missing',
  short: 'too short',
  long: 'too long',
  fits: 'fits',
};

/** How a text stands: its width, and what is wrong with it. */
export function textState(text: LineText): string {
  if (text.fit === 'missing') return FITS.missing;
  const marks = [
    ...(text.fit === 'fits' ? [] : [FITS[text.fit]]),
    ...(text.shared ? ['duplicate'] : []),
    ...(text.from ? [`the ${text.from}’s default`] : []),
  ];
  return [`${text.px} px`, ...marks].join(', ');
}

/** The worst first. */
const gravity = ({ worst, faults }: PageLine): number =>
  worst === undefined ? SEVERITIES.length * 1000 : SEVERITIES.indexOf(worst) * 1000 - Math.min(faults, 999);

const faultsText = ({ faults, worst }: PageLine): string =>
  worst ? `${quantity(faults, 'fault')}, ${worst}` : 'none';

export const PAGE_COLUMNS: readonly PageColumn[] = [
  { key: 'url', title: 'Address', usual: true, text: (p) => p.url },
  {
    key: 'faults',
    title: 'Open findings',
    usual: true,
    text: faultsText,
    order: gravity,
  },
  { key: 'status', title: 'Status', usual: true, isNumber: true, text: (p) => p.status ?? p.error ?? '' },
  { key: 'listed', title: 'May be listed', usual: true, text: (p) => p.keptOut ?? 'yes' },
  { key: 'title', title: 'Title', usual: true, text: (p) => p.title.text },
  {
    key: 'titleState',
    title: 'Title: width and state',
    text: (p) => textState(p.title),
    order: (p) => p.title.px,
  },
  { key: 'description', title: 'Description', usual: true, text: (p) => p.description.text },
  {
    key: 'descriptionState',
    title: 'Description: width and state',
    text: (p) => textState(p.description),
    order: (p) => p.description.px,
  },
  { key: 'canonical', title: 'Canonical', text: (p) => p.canonical ?? '' },
  { key: 'language', title: 'Language', text: (p) => p.language ?? '' },
  { key: 'heading', title: 'Main heading', text: (p) => p.heading ?? '' },
  { key: 'picture', title: 'Share picture', text: (p) => p.picture ?? '' },
  { key: 'words', title: 'Words', usual: true, isNumber: true, text: (p) => p.words },
  {
    key: 'bytes',
    title: 'Size',
    isNumber: true,
    text: (p) => (p.bytes === null ? '' : bytesInWords(p.bytes)),
    order: (p) => p.bytes ?? -1,
  },
  {
    key: 'firstByte',
    title: 'First byte, ms',
    isNumber: true,
    text: (p) => p.firstByte ?? '',
    order: (p) => p.firstByte ?? -1,
  },
  { key: 'linksIn', title: 'Links in', usual: true, isNumber: true, text: (p) => p.linksIn },
  { key: 'linksOut', title: 'Links out', isNumber: true, text: (p) => p.linksOut },
  {
    key: 'depth',
    title: 'Clicks from home',
    isNumber: true,
    text: (p) => p.depth ?? '',
    order: (p) => p.depth ?? Infinity,
  },
  { key: 'inSitemap', title: 'In sitemap', text: (p) => (p.inSitemap ? 'yes' : 'no') },
];

export const USUAL_COLUMNS: readonly string[] = PAGE_COLUMNS.filter((c) => c.usual).map((c) => c.key);

/** The columns of these keys, in their own order; those that nobody knows are left out. */
export const columnsOf = (keys: readonly string[]): PageColumn[] =>
  PAGE_COLUMNS.filter((c) => keys.includes(c.key));

/** Sorts by a column. @returns a new list */
export function sortedPages(pages: readonly PageLine[], key: string, descending = false): PageLine[] {
  const column = PAGE_COLUMNS.find((c) => c.key === key);
  if (!column) return [...pages];
  const order = column.order ?? column.text;
  const keyed = pages.map((page) => ({ page, by: order(page) }));
  keyed.sort(({ by: a }, { by: b }) =>
    typeof a === 'number' && typeof b === 'number'
      ? a - b
      : String(a) < String(b)
        ? -1
        : String(a) > String(b)
          ? 1
          : 0,
  );
  if (descending) keyed.reverse();
  return keyed.map(({ page }) => page);
}

/**
 * A table of pages as CSV (RFC 4180). Cells that a spreadsheet would take for a formula begin with an apostrophe.
 */
export function pagesCsv(pages: readonly PageLine[], columns: readonly PageColumn[]): string {
  const rows = pages.map((p) => columns.map((c) => c.text(p)));
  return `${Papa.unparse([columns.map((c) => c.title), ...rows], { newline: '\r\n', escapeFormulae: true })}\r\n`;
}
