/**
 * Addresses of a former site and where they lead from now on: proposed by path and by content, each with a score to
 * confirm. Pure.
 */
import Papa from 'papaparse';
import { decodeSafely } from '#core/extract/address';
import { isSameAddress, type Redirected } from '#core/recipes/redirects';

/** A page by what it says of itself. */
export interface KnownPage {
  /** Path and query. */
  path: string;
  title?: string;
  text?: string;
}

export interface ProposedTarget {
  from: string;
  title?: string;
  /** Nothing where no page is alike. */
  to: string | null;
  /** 0 to 100: 100 where the path is the same. */
  score: number;
  /** What speaks for it, in words. */
  why: string;
}

/** Below this nothing is proposed. */
const LEAST_SCORE = 15;
const SURE = 100;
/** From here on a proposal is likely enough to be confirmed with others (common practice). */
export const LIKELY = 60;
/** How much path, title and text count together (common practice). */
const WEIGHTS = { path: 0.3, title: 0.35, text: 0.35 } as const;
type Part = keyof typeof WEIGHTS;
const PARTS = Object.keys(WEIGHTS) as Part[];
/** From here on likeness of one kind is worth a word. */
const TELLING = 0.2;
/** Words of a text that tell most of it. */
const TELLING_WORDS = 60;
const LONGEST_TEXT = 20_000;

const WORD = /[\p{L}\p{N}]{2,}/gu;
const wordsOf = (text: string): string[] => text.toLowerCase().match(WORD) ?? [];

/** The path without what differs between systems: case, endings, names of index files, final slashes. */
export const plainPath = (path: string): string =>
  decodeSafely(path)
    .toLowerCase()
    .replace(/[?#].*$/, '')
    .replace(/\/(?:index|default|home)\.[a-z]{2,5}$/, '/')
    .replace(/\.(?:x?html?|php\d?|aspx?|jsp|cfm)$/, '')
    .replace(/\/+$/, '') || '/';

type Words = ReadonlyMap<string, number>;
interface Read {
  page: KnownPage;
  plain: string;
  words: Record<Part, string[]>;
}

const read = (page: KnownPage): Read => ({
  page,
  plain: plainPath(page.path),
  words: {
    path: wordsOf(plainPath(page.path)),
    title: wordsOf(page.title ?? ''),
    text: wordsOf((page.text ?? '').slice(0, LONGEST_TEXT)),
  },
});

/**
 * In how many pages of its site each word stands: what stands everywhere there tells nothing.
 * @param atLeast how many more pages there are thought to be: of a list that may be one address, one
 */
function rarityOf(pages: readonly Read[], part: Part, atLeast = 0): (word: string) => number {
  const counts = new Map<string, number>();
  for (const { words } of pages)
    for (const word of new Set(words[part])) counts.set(word, (counts.get(word) ?? 0) + 1);
  return (word) => Math.log((1 + atLeast + pages.length) / (1 + (counts.get(word) ?? 0)));
}

/** The words of a page by their weight, the most telling ones. */
function weighed(words: readonly string[], rarity: (word: string) => number): Words {
  const counts = new Map<string, number>();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  const all = [...counts].map(([word, n]): [string, number] => [word, (1 + Math.log(n)) * rarity(word)]);
  return new Map(
    all
      .filter(([, weight]) => weight > 0)
      .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
      .slice(0, TELLING_WORDS),
  );
}

/** The same, of length 1, so that products of two are the cosine of the angle between them: 0 to 1. */
function unit(words: Words): [word: string, weight: number][] {
  const length = Math.hypot(...words.values());
  return [...words].map(([word, weight]) => [word, weight / length]);
}

/** By word, the pages that have it, each by its number, and how much it weighs there. */
type Index = Map<string, [page: number, weight: number][]>;

function indexOf(pages: readonly Read[], part: Part, rarity: (word: string) => number): Index {
  const index: Index = new Map();
  for (const [number, page] of pages.entries())
    for (const [word, weight] of unit(weighed(page.words[part], rarity))) {
      const list = index.get(word) ?? [];
      list.push([number, weight]);
      index.set(word, list);
    }
  return index;
}

/** How like a page is to each of an index’s. */
function likenesses(words: Words, index: Index): Map<number, number> {
  const found = new Map<number, number>();
  for (const [word, weight] of unit(words))
    for (const [number, other] of index.get(word) ?? [])
      found.set(number, (found.get(number) ?? 0) + weight * other);
  return found;
}

/**
 * Where each former page leads: to the page of the same path, else to the one that is most like it.
 * @param former pages that the former site answers, and addresses that the agency knows of
 * @param fresh pages of the new site
 */
export function proposeTargets(former: readonly KnownPage[], fresh: readonly KnownPage[]): ProposedTarget[] {
  const before = former.map(read);
  const now = fresh.map(read);
  const parts = PARTS.map((part) => {
    return {
      part,
      rarity: rarityOf(before, part, 1),
      index: indexOf(now, part, rarityOf(now, part)),
    };
  });
  const byPath = new Map(now.map((one) => [one.plain, one.page.path]));
  return before.map((one): ProposedTarget => {
    const { page, plain, words } = one;
    const about = { from: page.path, ...(page.title ? { title: page.title } : {}) };
    const same = byPath.get(plain);
    if (same !== undefined) return { ...about, to: same, score: SURE, why: 'the same path' };
    const sums = new Map<number, { score: number; why: Part[] }>();
    for (const { part, rarity, index } of parts)
      for (const [number, alike] of likenesses(weighed(words[part], rarity), index)) {
        const sum = sums.get(number) ?? { score: 0, why: [] };
        sum.score += WEIGHTS[part] * alike;
        if (alike >= TELLING) sum.why.push(part);
        sums.set(number, sum);
      }
    // of two that are equally alike the first, which is the nearer to the home page
    const [best] = [...sums].sort((a, b) => b[1].score - a[1].score || a[0] - b[0]);
    // a bare address has only its path to be told by
    const most = PARTS.reduce((sum, part) => sum + (words[part].length ? WEIGHTS[part] : 0), 0);
    const score = Math.min(SURE - 1, Math.round((SURE * (best?.[1].score ?? 0)) / (most || 1)));
    if (!best || score < LEAST_SCORE) return { ...about, to: null, score: 0, why: 'no page is alike' };
    const why = best[1].why.join(', ') || 'a little of each';
    return { ...about, to: now[best[0]]!.page.path, score, why: `alike by ${why}` };
  });
}

/** Addresses that move, as a table for any other system. @param hosts the site's own */
export const redirectsCsv = (list: readonly Redirected[], hosts: readonly string[]): string =>
  Papa.unparse(
    {
      fields: ['from', 'to'],
      data: list.filter((r) => !isSameAddress(r, hosts)).map((r) => [r.from, r.to]),
    },
    { escapeFormulae: true },
  );
