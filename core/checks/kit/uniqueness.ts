/** Whether a text stands on one page only, among the pages that count for it (rule 8). */
import type { Judgement, PlaceResult } from '#core/facts/finding';
import { quantity } from '#core/text/quantity';
import { foldSpace } from '#core/text/fold';
import type { CheckContext } from './check';
import { failed, overPages, passed } from './judgement';
import type { ReadPage } from '#core/checks/view/read-page';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('kit.uniqueness', {
  'as-on': '“{text}”, as on {url}',
});

interface Entry {
  page: ReadPage;
  text: string;
  series: string;
  group: Entry[];
}

/** The pages that count, by their text; what has none is left out. */
function entriesOf(
  pages: readonly ReadPage[],
  textOf: (p: ReadPage) => string | undefined,
): Map<ReadPage, Entry> {
  const groups = new Map<string, Entry[]>();
  const entries = new Map<ReadPage, Entry>();
  for (const page of pages) {
    const text = textOf(page);
    if (!text) continue;
    const key = foldSpace(text).toLowerCase();
    const group = groups.get(key) ?? [];
    const entry = { page, text, series: seriesOf(page.url), group };
    group.push(entry);
    groups.set(key, group);
    entries.set(page, entry);
  }
  return entries;
}

const sharedBy = (own: Entry): Entry | undefined =>
  own.group.find((other) => other.series !== own.series && !isAlternate(other.page, own.page));

/** Pages whose text stands on another page too. */
export function sharedTexts(
  pages: readonly ReadPage[],
  textOf: (p: ReadPage) => string | undefined,
): Set<ReadPage> {
  return new Set(
    [...entriesOf(pages, textOf).values()].filter((own) => sharedBy(own)).map((own) => own.page),
  );
}

export function overUnique(context: CheckContext, textOf: (p: ReadPage) => string | undefined): Judgement {
  const entries = entriesOf(context.view.countable, textOf);
  const judge = (page: ReadPage): PlaceResult | null => {
    const own = entries.get(page);
    if (!own) return null;
    const same = sharedBy(own);
    return same
      ? failed(page.url, { found: msg('as-on', { text: own.text, url: same.page.url }), raw: own.text })
      : passed(page.url, { found: verbatim(own.text) });
  };
  return overPages(context, judge, { notes: amongRead(context) });
}

/** Said where pages are compared with each other and not all were read. */
export const amongRead = ({ evidence: { pages, unread } }: Pick<CheckContext, 'evidence'>): string[] =>
  unread.length
    ? [`Among the ${quantity(pages.length, 'page')} that were read; ${unread.length} more were found.`]
    : [];

/**
 * Pages of one series differ by their page number alone: /news/page/2/, /news?page=2. Common practice. A page
 * is in its own series.
 */
export function seriesOf(url: string): string {
  return !url.includes('/page/') && !url.includes('?')
    ? url
    : url
        .replace(/\/page\/\d+\/?(?=$|\?)/, '/')
        .replace(/([?&])(?:page|paged|p)=\d+(&|$)/, (_, lead: string, rest: string) => (rest ? lead : ''));
}

/** Alternates of other languages name each other. */
export function isAlternate(a: ReadPage, b: ReadPage): boolean {
  return a.alternates.some((l) => l.href === b.url);
}
