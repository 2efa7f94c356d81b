/** Folding texts so that they can be compared as a reader would. */
import { memoizeShort } from '#core/remembering';

/** Words with one space between and nothing else to fold: most short texts. */
const PLAIN = /^(?:[!-~]+ )*[!-~]+$/;

/** White space that is not one lone space. */
const RUNS =
  /(?:[\t-\r\u00a0\u1680\u2000-\u200b\u2028\u2029\u202f\u205f\u3000\ufeff]| (?=[\s\u200b]))[\s\u200b]*/g;

/** NFC, every run of white space (no-break spaces too) one space, trimmed. */
export function foldSpace(text: string): string {
  const folded = PLAIN.test(text) ? text : text.replace(RUNS, ' ').trim();
  return /[^\x00-\x7f]/.test(folded) ? folded.normalize('NFC') : folded;
}

/** Anything that may carry an accent; dashes, quotes and marks such as © do not. */
const ACCENTED = /[\xc0-\u1fff\u2c00-\uffff]+/g;
const HAS_ACCENTED = new RegExp(ACCENTED.source);
/** Most runs are a letter or two, and the same few. */
const withoutAccents = memoizeShort((letters) => letters.normalize('NFD').replace(/\p{M}+/gu, ''), 2, 2000);

/**
 * Folds case and accents of a text whose white space is folded already.
 * @param lowered the text in lower case, where it is known
 */
export function foldLetters(text: string, lowered?: string): string {
  if (!HAS_ACCENTED.test(text)) return lowered ?? text.toLowerCase();
  return text.replace(ACCENTED, withoutAccents).toLowerCase();
}

/**
 * Folds white space, case and accents: for "is this name in that title". Titles and descriptions are folded
 * by a dozen checks each, and again in every audit of the site.
 */
export const foldLoosely = memoizeShort((text) => foldLetters(foldSpace(text)), 400, 5000);
