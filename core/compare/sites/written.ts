/** A comparison as files in open formats. */
import Papa from 'papaparse';
import { escapeMarkdown } from '#core/formats/markdown';
import { quantity } from '#core/text/quantity';
import type { ComparedPage, Comparison } from './compare-sites';

export const KIND_WORDS: Record<ComparedPage['kind'], string> = {
  changed: 'changed',
  moved: 'moved',
  gone: 'gone',
  added: 'added',
  same: 'the same',
};

/** How many pages of each kind there are: "3 changed, 1 moved, 20 the same". */
export const countsText = ({ counts }: Pick<Comparison, 'counts'>): string =>
  (Object.keys(KIND_WORDS) as ComparedPage['kind'][])
    .filter((kind) => counts[kind])
    .map((kind) => `${counts[kind]} ${KIND_WORDS[kind]}`)
    .join(', ') || 'no pages';

/** What was set aside, in a sentence; nothing where that was nothing. */
export const asideText = ({ setAside }: Pick<Comparison, 'setAside'>): string =>
  setAside.length
    ? `Set aside, since it has to differ before a launch: ${setAside.map((s) => `${s.what} (${quantity(s.pages, 'page')})`).join(', ')}.`
    : '';

/** @param labels what the two sides are called */
export function comparisonMarkdown(
  comparison: Comparison,
  { title, first, second }: { title: string; first: string; second: string },
): string {
  const { pages, site, ahead, notes } = comparison;
  const aside = asideText(comparison);
  const lines = [
    `# ${escapeMarkdown(title)}`,
    '',
    `First: ${escapeMarkdown(first)}  `,
    `Second: ${escapeMarkdown(second)}`,
    '',
    `${countsText(comparison)}. Ahead: ${ahead.side} (${escapeMarkdown(ahead.reason)}).`,
    ...[aside, ...notes].filter(Boolean).flatMap((note) => ['', escapeMarkdown(note)]),
  ];
  if (comparison.common.length) lines.push('', '## On many pages', '');
  for (const { what, kind, line, pages: n } of comparison.common)
    lines.push(`- ${what}, ${kind === 'gone' ? 'first' : 'second'} only, on ${n}: ${escapeMarkdown(line)}`);
  for (const page of pages.filter((p) => p.kind !== 'same' && !p.onlyCommon)) {
    const from = page.from === undefined ? '' : ` from ${escapeMarkdown(page.from)}`;
    lines.push('', `## ${escapeMarkdown(page.path)}: ${KIND_WORDS[page.kind]}${from}`);
    for (const { what, gone, added, more } of page.differences) {
      lines.push('', `**${what}**`, '');
      for (const line of gone) lines.push(`- first: ${escapeMarkdown(line)}`);
      for (const line of added) lines.push(`- second: ${escapeMarkdown(line)}`);
      if (more) lines.push(`- ${quantity(more, 'more line')}`);
    }
  }
  if (site.length) {
    lines.push(
      '',
      '## Beside the pages',
      '',
      '| what | where | first | second |',
      '| --- | --- | --- | --- |',
    );
    for (const s of site)
      lines.push(`| ${[s.what, s.where, s.before, s.after].map(escapeMarkdown).join(' | ')} |`);
  }
  return `${lines.join('\n')}\n`;
}

/** One line for each thing that differs. */
export function comparisonCsv({ pages, site, common }: Comparison): string {
  const rows = [
    ...common.map((c) => [
      `${c.pages} pages`,
      'changed',
      '',
      c.what,
      c.kind === 'gone' ? c.line : '',
      c.kind === 'added' ? c.line : '',
    ]),
    ...pages
      .filter((p) => p.kind !== 'same' && !p.onlyCommon)
      .flatMap((p) =>
        p.differences.length
          ? p.differences.map((d) => [
              p.path,
              p.kind,
              p.from ?? '',
              d.what,
              d.gone.join('\n'),
              d.added.join('\n'),
            ])
          : [[p.path, p.kind, p.from ?? '', '', '', '']],
      ),
    ...site.map((s) => [s.where, 'changed', '', s.what, s.before, s.after]),
  ];
  const titles = ['Where', 'Kind', 'Before at', 'What', 'First', 'Second'];
  return `${Papa.unparse([titles, ...rows], { newline: '\r\n', escapeFormulae: true })}\r\n`;
}
