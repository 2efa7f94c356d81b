/** One pattern for the texts of many pages. */
import type { PageLine } from '#core/pages/page-line';
import type { TextRoom } from '#core/pages/fit';
import type { Brief } from '#core/facts/brief';
import { pageWord } from '#core/checks/kit/page-titles';
import { foldSpace } from '#core/text/fold';
import { textWidth } from '#core/text/width';
import { takenKey } from './concerns';

/** What stands for each field of a pattern. */
export const PATTERN_FIELDS = {
  heading: 'the page’s main heading',
  title: 'the title that it has',
  description: 'the description that it has',
  word: 'the last word of its address',
  name: 'the site’s name',
  tagline: 'the tagline',
} as const;
type PatternField = keyof typeof PATTERN_FIELDS;

const FIELD = /\{([a-z]+)\}/g;

/** Fields that nobody knows. */
export const unknownFields = (pattern: string): string[] => [
  ...new Set([...pattern.matchAll(FIELD)].map((m) => m[1]!).filter((f) => !(f in PATTERN_FIELDS))),
];

function valuesFor(page: PageLine, brief: Pick<Brief, 'name' | 'tagline'>): Record<PatternField, string> {
  return {
    heading: page.heading ?? '',
    title: page.title.text,
    description: page.description.text,
    word: pageWord(page.url),
    name: brief.name ?? '',
    tagline: brief.tagline ?? '',
  };
}

export interface PatternResult {
  url: string;
  text: string;
  /** CSS pixels, rounded up. */
  px: number;
  isTooLong: boolean;
  /** Another page gets the same text. */
  clashes: boolean;
  /** Fields of the pattern that the page has nothing for. */
  empty: string[];
}

/** What separates the parts of a title. */
const PARTS = /(\s+[–—·|:-]\s+)/;

/** A text without its last part, where it is too long with it. */
function shortened(text: string, room: TextRoom): string {
  if (textWidth(text, room.size) <= room.width) return text;
  const parts = text.split(PARTS);
  return parts.length > 1 ? parts.slice(0, -2).join('') : text;
}

export interface PatternOptions {
  brief: Pick<Brief, 'name' | 'tagline'>;
  room: TextRoom;
  /** Leaves the last part out where the whole is too long. */
  dropLast: boolean;
}

/** @returns what the pattern gives for each page, in their order */
export function applyPattern(
  pattern: string,
  pages: readonly PageLine[],
  { brief, room, dropLast }: PatternOptions,
): PatternResult[] {
  const found = pages.map((page) => {
    const values = valuesFor(page, brief);
    const empty = new Set<string>();
    const filled = pattern.replace(FIELD, (whole, field: string) => {
      const value = values[field as PatternField];
      if (value === undefined) return whole;
      if (!value) empty.add(field);
      return value;
    });
    const text = dropLast ? shortened(foldSpace(filled), room) : foldSpace(filled);
    const px = Math.ceil(textWidth(text, room.size));
    return { url: page.url, text, px, isTooLong: px > room.width, clashes: false, empty: [...empty] };
  });
  const counts = new Map<string, number>();
  for (const { text } of found) counts.set(takenKey(text), (counts.get(takenKey(text)) ?? 0) + 1);
  return found.map((f) => ({ ...f, clashes: counts.get(takenKey(f.text))! > 1 }));
}
