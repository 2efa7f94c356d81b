/** The pages of a site at the text bench: what is live, what is intended, and what is being typed. */
import type { TextField } from '#core/checks/kit/default-texts';
import { takenKey, type TakenText } from '#core/intended/concerns';
import type { TextRow } from '#core/intended/texts-csv';
import { pagePath, TEXTS_AT_ONCE } from '#core/facts/intended-text';
import type { PageLine } from '#core/pages/page-line';
import { textFit, type TextRoom } from '#core/pages/fit';
import type { Answer } from '~/composables/api';

export type KeptText = Answer<'/api/sites/:id/texts'>[number];
export interface BenchPage {
  path: string;
  line: PageLine;
  kept?: KeptText;
}
export const TEXT_FIELDS: readonly TextField[] = ['title', 'description'];

/** What a page shows or is to show. */
export const wantedText = ({ line, kept }: BenchPage, field: TextField): string =>
  kept?.[field] ?? line[field].text;

/** Pages that can have texts, by their path, each once. */
export function benchPages(lines: readonly PageLine[], kept: readonly KeptText[], base: string): BenchPage[] {
  const texts = new Map(kept.map((t) => [t.path, t]));
  const pages = new Map<string, BenchPage>();
  for (const line of lines) {
    const path = line.status !== null && line.status < 300 ? pagePath(line.url, base) : undefined;
    if (path !== undefined && !pages.has(path)) pages.set(path, { path, line, kept: texts.get(path) });
  }
  return [...pages.values()];
}

/** Whether somebody has to look at a page’s texts. */
export function needsWork(page: BenchPage, rooms: Record<TextField, TextRoom>): boolean {
  return TEXT_FIELDS.some((field) => {
    const { kept, line } = page;
    if (textFit(wantedText(page, field), rooms[field]).fit !== 'fits') return true;
    return kept?.[field] === undefined && Boolean(line[field].shared ?? line[field].from);
  });
}

/** Texts of all pages of a site, by how they are compared. */
export function takenTexts(pages: readonly BenchPage[], field: TextField): TakenText {
  const found = new Map<string, string[]>();
  for (const page of pages) {
    const text = wantedText(page, field);
    if (!text) continue;
    const key = takenKey(text);
    found.set(key, [...(found.get(key) ?? []), page.path]);
  }
  return found;
}

/** As they go into a spreadsheet or to the client. */
export const textRows = (pages: readonly BenchPage[]): TextRow[] =>
  pages.map(({ path, line, kept }) => ({
    path,
    title: kept?.title,
    description: kept?.description,
    liveTitle: line.title.text,
    liveDescription: line.description.text,
  }));

/** What is to be saved of one page. */
export interface TextChange {
  path: string;
  title?: string;
  description?: string;
  /** The version that it was changed from. */
  from?: number;
}

/** Saves texts of many pages. @returns how many were changed */
export async function saveTexts(siteId: number, texts: readonly TextChange[]): Promise<number> {
  let changed = 0;
  for (let i = 0; i < texts.length; i += TEXTS_AT_ONCE)
    changed += (
      await api('/api/sites/:id/texts', {
        params: { id: siteId },
        method: 'PUT',
        body: { texts: texts.slice(i, i + TEXTS_AT_ONCE) },
      })
    ).changed;
  return changed;
}
