/**
 * What is said of a finding or a place: a code with its data. Sentences are made from them at the edge, by
 * language; nothing compares or parses a sentence.
 */

/** What a sentence is made with: text and numbers, another sentence, or a list of either. */
export type MessageValue = string | number | Message | readonly (string | Message)[] | undefined;

export interface Message {
  /** Stable: acceptances rest on it. */
  code: string;
  data?: Readonly<Record<string, MessageValue>>;
}

/** The code of what stands as it was found: a text of the site, an address, an error of the network. */
export const VERBATIM = 'verbatim';

/** What was found, as it came. @returns undefined where there is nothing */
export function verbatim(value: string): Message;
export function verbatim(value: string | undefined): Message | undefined;
export function verbatim(value: string | undefined): Message | undefined {
  return value === undefined ? undefined : { code: VERBATIM, data: { value } };
}

export const isMessage = (value: unknown): value is Message =>
  typeof value === 'object' && value !== null && typeof (value as Message).code === 'string';

/** Whether a code is that of a sentence, or of one in its data. */
export const hasCode = (said: Message, code: string): boolean =>
  said.code === code ||
  Object.values(said.data ?? {})
    .flat()
    .some((value) => isMessage(value) && hasCode(value, code));

/** Whether two say the same: one code, and the same of all that both have data of. */
export function isSameMessage(a: Message, b: Message): boolean {
  if (a.code !== b.code) return false;
  return Object.entries(a.data ?? {}).every(([name, value]) => {
    const other = b.data?.[name];
    return value === undefined || other === undefined || isSameValue(value, other);
  });
}

function isSameValue(a: MessageValue, b: MessageValue): boolean {
  if (isMessage(a) && isMessage(b)) return isSameMessage(a, b);
  if (Array.isArray(a) && Array.isArray(b))
    return (
      a.length === b.length && a.every((value, i) => isSameValue(value as MessageValue, b[i] as MessageValue))
    );
  return a === b;
}
