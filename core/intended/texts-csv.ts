/** Intended texts as CSV (RFC 4180), out and in: every bad cell is marked before anything is saved. */
import Papa from 'papaparse';
import { MOST_TEXTS, TEXT_LIMITS, type IntendedText } from '#core/facts/intended-text';
import { foldSpace } from '#core/text/fold';

const TITLES = ['path', 'title', 'description', 'live title', 'live description'] as const;

/** A page as it goes out. */
export interface TextRow extends Pick<IntendedText, 'path' | 'title' | 'description'> {
  liveTitle?: string;
  liveDescription?: string;
}

/** Cells that a spreadsheet would take for a formula begin with an apostrophe, which reading takes away. */
export function writeTextsCsv(rows: readonly TextRow[]): string {
  const lines = rows.map((r) =>
    [r.path, r.title, r.description, r.liveTitle, r.liveDescription].map((c) => c ?? ''),
  );
  return `${Papa.unparse([[...TITLES], ...lines], { newline: '\r\n', escapeFormulae: true })}\r\n`;
}

interface BadCell {
  line: number;
  column: string;
  why: string;
}
export interface ReadTexts {
  texts: IntendedText[];
  bad: BadCell[];
}

const unescaped = (cell: string): string => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

/**
 * @param known paths that the site has
 * @returns texts of all good rows; an empty cell says nothing of that text
 */
export function readTextsCsv(text: string, known: ReadonlySet<string>): ReadTexts {
  const bad: BadCell[] = [];
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), {
    skipEmptyLines: 'greedy',
    preview: MOST_TEXTS + 2,
  });
  const [head = [], ...rows] = data;
  const titles = head.map((h) => foldSpace(h).toLowerCase());
  const at = (title: string): number => titles.indexOf(title);
  if (at('path') < 0 || (at('title') < 0 && at('description') < 0))
    return {
      texts: [],
      bad: [{ line: 1, column: '', why: 'the first line must name path, and title or description' }],
    };
  if (rows.length > MOST_TEXTS)
    return {
      texts: [],
      bad: [{ line: MOST_TEXTS + 2, column: '', why: `no more than ${MOST_TEXTS} pages at once` }],
    };
  const texts = new Map<string, IntendedText>();
  rows.forEach((cells, i) => {
    const line = i + 2;
    const cell = (title: 'path' | 'title' | 'description'): string =>
      at(title) < 0 ? '' : foldSpace(unescaped(cells[at(title)] ?? ''));
    const fault = (column: string, why: string): void => {
      bad.push({ line, column, why });
    };
    const path = cell('path');
    const before = bad.length;
    if (!path.startsWith('/')) fault('path', 'a path begins with /');
    else if (!known.has(path)) fault('path', 'the site has no page at this path');
    else if (texts.has(path)) fault('path', 'this page stands here twice');
    for (const field of ['title', 'description'] as const)
      if (cell(field).length > TEXT_LIMITS[field])
        fault(field, `longer than ${TEXT_LIMITS[field]} characters`);
    if (bad.length > before || (!cell('title') && !cell('description'))) return;
    texts.set(path, {
      path,
      ...(cell('title') ? { title: cell('title') } : {}),
      ...(cell('description') ? { description: cell('description') } : {}),
    });
  });
  return { texts: [...texts.values()], bad };
}
