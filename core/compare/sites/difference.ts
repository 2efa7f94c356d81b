/** One thing of a page on two sides. */
import { diffSequence, sentencesOf } from '#core/compare/sequence-diff';
import type { Compared } from './page-face';

/** What differs of one thing: what the first has and the second lacks, and the other way round. */
export interface Difference {
  what: Compared | 'status';
  gone: string[];
  added: string[];
  /** Lines beyond those that are kept. */
  more?: number;
}

const MOST_LINES = 60;
const LONGEST_LINE = 600;

const clip = (lines: string[]): string[] =>
  lines.slice(0, MOST_LINES).map((line) => line.slice(0, LONGEST_LINE));

/** @returns undefined where both have the same lines */
export function differenceOf(
  what: Difference['what'],
  before: string[],
  after: string[],
): Difference | undefined {
  if (before.length === after.length && before.every((line, i) => line === after[i])) return undefined;
  const byText = what === 'text';
  const steps = byText
    ? diffSequence(sentencesOf(before[0] ?? ''), sentencesOf(after[0] ?? ''))
    : diffSequence(before, after);
  const gone = steps.flatMap((s) => (s.kind === 'gone' ? [s.text] : []));
  const added = steps.flatMap((s) => (s.kind === 'added' ? [s.text] : []));
  const more = Math.max(0, gone.length - MOST_LINES) + Math.max(0, added.length - MOST_LINES);
  return { what, gone: clip(gone), added: clip(added), ...(more ? { more } : {}) };
}
