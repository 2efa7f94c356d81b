/**
 * Texts that sort byte by byte as a list is to stand, each of one row only: a window of the list is one range of an
 * index, and goes on after any row.
 */
import { folded } from './words';

type Part = string | number;

const DIGITS = 10;
const MOST = 10 ** DIGITS - 1;
const SPACE_FOR_TEXT = 60;
/** Sorts before all that may stand in a part, so that a shorter text comes first. */
const BETWEEN = ' ';

const number = (value: number): string =>
  Math.min(MOST, Math.max(0, Math.round(value)))
    .toString()
    .padStart(DIGITS, '0');

/** For what stands the other way round: the most first. @param value not negative */
export const downward = (value: number): number => MOST - Math.min(MOST, Math.max(0, Math.round(value)));

/** Points as whole numbers, so that none is lost in sorting and adding. */
export const wholePoints = (points: number): number => Math.round(points * 1_000_000);

/** A text as it stands in a key. */
export const keyText = (text: string): string => folded(text).replace(/[^\p{L}\p{N}]+/gu, '-');

/** @param parts whole numbers from 0 on, and texts, the weightiest first @param id of the row */
export function sortKey(parts: readonly Part[], id: number): string {
  return [...parts, id]
    .map((part) => (typeof part === 'number' ? number(part) : keyText(part).slice(0, SPACE_FOR_TEXT)))
    .join(BETWEEN);
}
