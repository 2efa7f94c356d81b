/** The words of a zone file's entries (RFC 1035 5.1). */

export interface Word {
  text: string;
  quoted: boolean;
}

/** An entry: the line it begins in, and whether white space stands before its first word. */
export interface Entry {
  at: number;
  blank: boolean;
  words: Word[];
}

export interface ZoneFault {
  line: number;
  message: string;
}

const ENDS_WORD = ' \t\r\n;()"';

/** Goes over the source once. */
class WordReader {
  readonly entries: Entry[] = [];
  private entry: Entry | undefined;
  private depth = 0;
  private line = 1;
  private at = 0;

  constructor(
    private readonly source: string,
    private readonly faults: ZoneFault[],
  ) {}

  read(): Entry[] {
    while (this.at < this.source.length) this.step(this.source[this.at]!);
    if (this.depth) this.fault('a bracket is not closed');
    this.endEntry();
    return this.entries;
  }

  private step(c: string): void {
    switch (c) {
      case '\n':
        this.line++;
        this.at++;
        if (!this.depth) this.endEntry();
        return;
      case ' ':
      case '\t':
      case '\r':
        this.entry ??= { at: this.line, blank: true, words: [] };
        this.at++;
        return;
      case ';':
        this.skipComment();
        return;
      case '(':
      case ')':
        this.begin();
        this.at++;
        this.bracket(c);
        return;
      case '"':
        this.begin().words.push({ text: this.quoted(), quoted: true });
        return;
      default:
        this.begin().words.push({ text: this.plain(), quoted: false });
    }
  }

  /** The entry that the next word belongs to. */
  private begin(): Entry {
    return (this.entry ??= { at: this.line, blank: false, words: [] });
  }

  private endEntry(): void {
    if (this.entry?.words.length) this.entries.push(this.entry);
    this.entry = undefined;
  }

  private fault(message: string): void {
    this.faults.push({ line: this.line, message });
  }

  private skipComment(): void {
    const end = this.source.indexOf('\n', this.at);
    this.at = end < 0 ? this.source.length : end;
  }

  private bracket(c: string): void {
    if (c === '(') this.depth++;
    else if (this.depth) this.depth--;
    else this.fault('a closing bracket without an opening one');
  }

  /** One character, with the backslash before it. */
  private take(): string {
    const isEscape = this.source[this.at] === '\\' && this.at + 1 < this.source.length;
    const taken = this.source.slice(this.at, this.at + (isEscape ? 2 : 1));
    this.at += taken.length;
    return taken;
  }

  private quoted(): string {
    let text = '';
    this.at++;
    while (this.at < this.source.length && this.source[this.at] !== '"' && this.source[this.at] !== '\n')
      text += this.take();
    if (this.source[this.at] === '"') this.at++;
    else this.fault('a quoted text without an end');
    return text;
  }

  private plain(): string {
    let text = '';
    while (this.at < this.source.length && !ENDS_WORD.includes(this.source[this.at]!)) {
      // a backslash at the end of a line escapes nothing
      if (this.source[this.at] === '\\' && this.source[this.at + 1] === '\n') text += this.source[this.at++];
      else text += this.take();
    }
    return text;
  }
}

/** Entries: comments left out, parentheses joined over lines, quotes and backslashes kept as they stand. */
export const entriesOf = (source: string, faults: ZoneFault[]): Entry[] =>
  new WordReader(source, faults).read();
