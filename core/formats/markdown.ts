/** Text in Markdown (CommonMark 0.31) that stays text, with its addresses as they are. */

/** An address of the web: in angle brackets it is a link, and nothing in it is markup (CommonMark 6.5). */
const ADDRESS = /https?:\/\/[^\s<>"“”`]*[^\s<>"“”`.,;:!?)\]’']/g;
/** A name with an underscore, such as `_dmarc.kites.example`: in a code span it is not emphasis. */
const NAME = /(?<![\w.-])(?:[\w-]+\.)*_[\w-]*(?:\.[\w-]+)+/g;
const KEPT = new RegExp(`${ADDRESS.source}|${NAME.source}`, 'g');

/** What begins markup within a line. */
const INLINE = /[\\`*_[\]<>|~&]/g;
/** What begins a block at the start of one: a heading, a list, a rule, a quotation. */
const BLOCK = /^(?:[#+\-=]|\d+(?=[.)]))/;

const plain = (text: string): string => text.replace(INLINE, '\\$&');

/** Characters that would begin markup become themselves, and white space is folded. */
export function escapeMarkdown(given: string): string {
  const text = given.replace(/\s+/g, ' ').trim();
  let out = '';
  let at = 0;
  for (const found of text.matchAll(KEPT)) {
    out += plain(text.slice(at, found.index));
    out += /^https?:/.test(found[0]) ? `<${found[0]}>` : `\`${found[0]}\``;
    at = found.index + found[0].length;
  }
  out += plain(text.slice(at));
  return out.replace(BLOCK, (start) => (/^\d/.test(start) ? `${start}\\` : `\\${start}`));
}
