/** Folding texts so that they can be compared as a reader would. */

/** Words with one space between and nothing else to fold: most short texts. */
const PLAIN = /^(?:[!-~]+ )*[!-~]+$/;

/** NFC, every run of white space (no-break spaces too) one space, trimmed. */
export function foldSpace(text: string): string {
  const folded = PLAIN.test(text) ? text : text.replace(/[\s\u00a0\u200b\ufeff]+/g, ' ').trim();
  return /[^\x00-\x7f]/.test(folded) ? folded.normalize('NFC') : folded;
}

/** Anything that may carry an accent; dashes, quotes and marks such as © do not. */
const ACCENTED = /[^\x00-\xbf\u2000-\u2bff]+/g;

/** Folds case and accents of a text whose white space is folded already. */
export function foldLetters(text: string): string {
  return text.replace(ACCENTED, letters => letters.normalize('NFD').replace(/\p{M}+/gu, '')).toLowerCase();
}

/** Titles and descriptions are folded by a dozen checks each, and again in every audit of the site. */
const folds = new Map<string, string>();
const SHORT = 400;

/** Folds white space, case and accents: for "is this name in that title". */
export function foldLoosely(text: string): string {
  if (text.length > SHORT) return foldLetters(foldSpace(text));
  let folded = folds.get(text);
  if (folded === undefined) {
    if (folds.size > 5000) folds.clear();
    folds.set(text, folded = foldLetters(foldSpace(text)));
  }
  return folded;
}
