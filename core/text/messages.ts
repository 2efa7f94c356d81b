/** Sentences from codes and data, in the format that translators know: ICU MessageFormat. */
import { IntlMessageFormat } from 'intl-messageformat';
import { VERBATIM, isMessage, type MessageValue, type Message } from '#core/facts/message';

/** Sentences of one language by their codes. */
export type MessageTable = Readonly<Record<string, string>>;

const ENGLISH = new Map<string, string>();
const formats = new Map<string, IntlMessageFormat>();

/**
 * Declares what a check or a part of the kit may say, in English.
 * @param owner stands before each code: the id of the check, or the name of the part
 * @returns makes one of them; the data have the names that stand in its braces
 */
export function defineMessages<const Table extends MessageTable>(owner: string, table: Table) {
  for (const [code, text] of Object.entries(table)) ENGLISH.set(`${owner}/${code}`, text);
  return (code: keyof Table & string, data?: Message['data']): Message =>
    data ? { code: `${owner}/${code}`, data } : { code: `${owner}/${code}` };
}

/** All that can be said in English, by code. */
export const englishMessages = (): ReadonlyMap<string, string> => ENGLISH;

/** Texts and names in turn, of a sentence without plurals and choices; most are such, and thousands are said. */
function plainParts(text: string): readonly string[] | null {
  let parts = plain.get(text);
  if (parts === undefined)
    plain.set(text, (parts = /^[^{}']*(?:\{\w+\}[^{}']*)*$/.test(text) ? text.split(/[{}]/) : null));
  return parts;
}
const plain = new Map<string, readonly string[] | null>();

/** A way to put words: the language, and what it says instead of the English. */
export interface Wording {
  language: string;
  sentenceOf: (code: string) => string | undefined;
}

export const IN_ENGLISH: Wording = { language: 'en', sentenceOf: (code) => ENGLISH.get(code) };

function textOf(value: MessageValue, wording: Wording): string | number | undefined {
  if (isMessage(value)) return formatMessage(value, wording);
  return Array.isArray(value) ? value.map((v) => textOf(v, wording)).join(', ') : (value as string | number);
}

/** The sentence of a code with its data. What the wording does not know is said in English, else by its code. */
export function formatMessage({ code, data }: Message, wording: Wording = IN_ENGLISH): string {
  if (code === VERBATIM) return String(data?.value ?? '');
  const own = wording.sentenceOf(code);
  const text = own ?? ENGLISH.get(code) ?? code;
  if (!text.includes('{')) return text;
  const plain = plainParts(text);
  if (plain) return plain.map((part, i) => (i % 2 ? (textOf(data?.[part], wording) ?? '') : part)).join('');
  const language = own === undefined ? 'en' : wording.language;
  const key = `${language} ${text}`;
  let format = formats.get(key);
  if (!format)
    formats.set(key, (format = new IntlMessageFormat(text, language, undefined, { ignoreTag: true })));
  return formatted(format, key, data, wording);
}

/** What was made of counts alone: each check says how many of what, and counts repeat. */
const counted = new Map<string, string>();
const MOST_COUNTED = 5000;

function formatted(format: IntlMessageFormat, key: string, data: Message['data'], wording: Wording): string {
  const values: Record<string, string | number> = {};
  let counts = key;
  for (const name in data) {
    const value = data[name];
    values[name] = textOf(value, wording) ?? '';
    counts = typeof value === 'number' && counts ? `${counts}\n${name} ${value}` : '';
  }
  const known = counts && counted.get(counts);
  if (known) return known;
  const text = format.format(values) as string;
  if (counts) {
    if (counted.size > MOST_COUNTED) counted.clear();
    counted.set(counts, text);
  }
  return text;
}
