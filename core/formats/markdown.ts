/** Text in Markdown (CommonMark) that stays text. */

/** Characters that would begin markup become themselves, and white space is folded. */
export const escapeMarkdown = (text: string): string =>
  text
    .replace(/\s+/g, ' ')
    .replace(/[\\`*_{}[\]()#+\-.!|<>~]/g, '\\$&')
    .trim();
