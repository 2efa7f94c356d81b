/** Words of a POSIX shell's command line (POSIX.1-2017, Shell Command Language 2.2). */

const PLAIN = /^[A-Za-z0-9_@%+=:,./-]+$/;
/** What a terminal would take for a key or a command of its own, even inside quotes, when it is pasted. */
const UNSAFE = /[^\x20-\x7e]/;

/** One word, quoted where it has to be; undefined for what cannot be pasted safely. */
export function shellWord(text: string): string | undefined {
  if (UNSAFE.test(text)) return undefined;
  return PLAIN.test(text) ? text : `'${text.replaceAll("'", `'\\''`)}'`;
}

/** A command line of these words; undefined where one of them cannot be pasted safely. */
export function shellLine(words: readonly string[]): string | undefined {
  const quoted = words.map(shellWord);
  return quoted.includes(undefined) ? undefined : quoted.join(' ');
}
