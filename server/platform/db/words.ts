/**
 * Finding rows by words, through a full-text index. MariaDB leaves out short and frequent words and splits by
 * tables of its own, so words are kept as letters that it takes as they are: each begins with a mark that makes it
 * long enough, and what is no ASCII letter stands as its number.
 */
const MARK = 'ww';
/** MariaDB indexes no longer ones (innodb_ft_max_token_size). */
const LONGEST = 80;
const MOST_TYPED = 10;
/** Finds words in scripts that put no space between them. */
const segmenter = new Intl.Segmenter('en', { granularity: 'word' });

/** Without case and marks above or below letters. */
export const folded = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

const coded = (word: string): string =>
  `${MARK}${word.replace(/[^a-z0-9]/g, (c) => `u${c.charCodeAt(0).toString(16).padStart(4, '0')}`)}`.slice(
    0,
    LONGEST,
  );

function codedWords(text: string): string[] {
  const runs = folded(text).match(/[\p{L}\p{N}]+/gu) ?? [];
  return runs
    .flatMap((run) => (/^[a-z0-9]+$/.test(run) ? [run] : [...segmenter.segment(run)].map((s) => s.segment)))
    .map(coded);
}

/** What is kept of texts so that their words are found; each word once. */
export const indexedWords = (texts: readonly (string | null | undefined)[]): string =>
  [...new Set(texts.flatMap((text) => (text ? codedWords(text) : [])))].join(' ');

/**
 * What is typed, as a question to the index (boolean mode): every word must begin a word of the row.
 * @returns undefined where nothing is asked
 */
export function askedWords(typed: string | undefined): string | undefined {
  const words = typed ? [...new Set(codedWords(typed))].slice(0, MOST_TYPED) : [];
  return words.length ? words.map((word) => `+${word}*`).join(' ') : undefined;
}
