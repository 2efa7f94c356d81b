/** Old and new texts in a table, to send to the client. */
import { escapeMarkdown } from '#core/formats/markdown';
import { escapeText } from '#core/recipes/markup';
import type { TextRow } from './texts-csv';

/** A text in a cell, or a dash. */
const plain = (text: string | undefined): string => escapeMarkdown(text ?? '') || '–';

interface Line {
  path: string;
  what: string;
  old?: string;
  now: string;
}

function linesOf(rows: readonly TextRow[]): Line[] {
  return rows.flatMap(({ path, title, description, liveTitle, liveDescription }) => [
    ...(title !== undefined && title !== liveTitle
      ? [{ path, what: 'Title', old: liveTitle, now: title }]
      : []),
    ...(description !== undefined && description !== liveDescription
      ? [{ path, what: 'Description', old: liveDescription, now: description }]
      : []),
  ]);
}

const HEAD = ['Page', 'What', 'Now', 'New'] as const;

/** @returns Markdown with a table (GitHub Flavored Markdown 4.10) */
export function noteMarkdown(site: string, rows: readonly TextRow[]): string {
  const lines = linesOf(rows).map(
    (l) => `| ${plain(l.path)} | ${l.what} | ${plain(l.old)} | ${plain(l.now)} |`,
  );
  return [
    `# Titles and descriptions of ${plain(site)}`,
    '',
    `| ${HEAD.join(' | ')} |`,
    '| --- | --- | --- | --- |',
    ...lines,
    '',
  ].join('\n');
}

/** @returns a page of HTML that loads nothing */
export function noteHtml(site: string, rows: readonly TextRow[]): string {
  const cell = (text: string | undefined): string => `<td>${escapeText(text ?? '') || '–'}</td>`;
  const lines = linesOf(rows).map(
    (l) => `<tr>${cell(l.path)}${cell(l.what)}${cell(l.old)}${cell(l.now)}</tr>`,
  );
  const title = `Titles and descriptions of ${escapeText(site)}`;
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title><style>body{font:14px/1.5 sans-serif;margin:2em}table{border-collapse:collapse}th,td{border:1px solid #d9d4c8;padding:6px 10px;text-align:left;vertical-align:top}</style></head><body><h1>${title}</h1><table><tr>${HEAD.map((h) => `<th>${h}</th>`).join('')}</tr>${lines.join('')}</table></body></html>\n`;
}
