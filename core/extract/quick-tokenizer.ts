/**
 * parse5's tokenizer with short cuts for what nearly every page consists of: plain text is taken in one
 * stride, and a well-formed tag in one look.
 * parse5 calls a state for each character. Whatever is not plain (references, NUL, CR, an attribute written
 * oddly) is left to it, so that the result is the standard's;
 * tests compare the trees, and the package's version is pinned because the states are its innards.
 */
import { Token, Tokenizer, TokenizerMode } from 'parse5';

/** The parts of parse5's tokenizer that the short cuts touch. */
interface Innards {
  preprocessor: { html: string; pos: number };
  state: number;
  runEnd: number;
  currentCharacterToken: { type: number } | null;
  currentToken: Token.TagToken | null;
  _flushRun(text: string): void;
  emitCurrentTagToken(): void;
  _stateData(cp: number): void;
  _stateScriptData(cp: number): void;
  _stateRawtext(cp: number): void;
  _stateRcdata(cp: number): void;
  _stateComment(cp: number): void;
  _stateAttributeValueDoubleQuoted(cp: number): void;
  _stateAttributeValueSingleQuoted(cp: number): void;
}

/** See the file's head. Give it whole documents only: the short cuts do not wait for more. */
export class QuickTokenizer extends Tokenizer {}

const quick = QuickTokenizer.prototype as unknown as Innards;
const slow = Tokenizer.prototype as unknown as Innards;

const TAB = 0x09,
  LF = 0x0a,
  FF = 0x0c,
  CR = 0x0d,
  SPACE = 0x20,
  BANG = 0x21,
  QUOTE = 0x22,
  AMPERSAND = 0x26,
  APOSTROPHE = 0x27,
  HYPHEN = 0x2d,
  SOLIDUS = 0x2f,
  LESS = 0x3c,
  EQUALS = 0x3d,
  GREATER = 0x3e;

/** Marks of ASCII characters: what may stand in a plain name, and what is white space inside a tag. */
const LETTER = 1,
  UPPER = 2,
  NAME = 4,
  BLANK = 8,
  UNQUOTED = 16;
const MARKS = new Uint8Array(128);
for (let c = 0x21; c < 0x7f; c++)
  if (![QUOTE, AMPERSAND, APOSTROPHE, LESS, EQUALS, GREATER, 0x60].includes(c))
    MARKS[c]! |= c === SOLIDUS ? UNQUOTED : UNQUOTED | NAME;
for (let c = 0x61; c <= 0x7a; c++) {
  MARKS[c]! |= LETTER;
  MARKS[c - 0x20]! |= LETTER | UPPER;
}
for (const c of [TAB, LF, FF, SPACE]) MARKS[c]! |= BLANK;
const marksOf = (c: number): number => (c < 128 ? MARKS[c]! : 0);

/** More attributes than this are left to parse5, which looks for double ones with a set. */
const MOST_ATTRIBUTES = 24;

/** Adds an attribute unless the tag has one of that name already, as the standard says. */
function addAttribute(attrs: Token.Attribute[], name: string, value: string): void {
  for (let i = 0; i < attrs.length; i++) if (attrs[i]!.name === name) return;
  attrs.push({ name, value });
}

const plainName = (html: string, from: number, to: number, upper: boolean): string =>
  upper ? html.slice(from, to).toLowerCase() : html.slice(from, to);

/**
 * Takes a whole plain tag that begins at the current `<`.
 * @returns whether it was plain; otherwise nothing was touched
 */
// one look at each character, in the order of the standard: split up, it is no longer the short cut
// eslint-disable-next-line complexity
function takeTag(t: Innards): boolean {
  const { html } = t.preprocessor;
  let at = t.preprocessor.pos + 1;
  const closing = html.charCodeAt(at) === SOLIDUS;
  if (closing) at++;
  let marks = marksOf(html.charCodeAt(at));
  if (!(marks & LETTER)) return false;
  const start = at;
  let upper = 0;
  for (; marks & NAME; marks = marksOf(html.charCodeAt(++at))) upper |= marks & UPPER;
  const tagName = plainName(html, start, at, upper !== 0);
  const attrs: Token.Attribute[] = [];
  let selfClosing = false;
  for (;;) {
    let c = html.charCodeAt(at);
    while (marksOf(c) & BLANK) c = html.charCodeAt(++at);
    if (c === GREATER) break;
    if (c === SOLIDUS) {
      if (html.charCodeAt(at + 1) !== GREATER) return false;
      selfClosing = true;
      at++;
      break;
    }
    marks = marksOf(c);
    if (closing || !(marks & NAME) || attrs.length > MOST_ATTRIBUTES) return false;
    const nameStart = at;
    upper = 0;
    for (; marks & NAME; marks = marksOf(html.charCodeAt(++at))) upper |= marks & UPPER;
    const name = plainName(html, nameStart, at, upper !== 0);
    c = html.charCodeAt(at);
    if (c !== EQUALS) {
      // a name alone; where "=" follows its blanks, the next turn gives up
      let after = at;
      while (marksOf(c) & BLANK) c = html.charCodeAt(++after);
      if (after === at && c !== GREATER && c !== SOLIDUS) return false;
      addAttribute(attrs, name, '');
      at = after;
      continue;
    }
    const mark = html.charCodeAt(++at);
    const quoted = mark === QUOTE || mark === APOSTROPHE;
    const from = quoted ? ++at : at;
    if (quoted) {
      for (c = html.charCodeAt(at); c !== mark; c = html.charCodeAt(++at))
        if (c === AMPERSAND || c === CR || c === 0 || !(c >= 0)) return false;
    } else {
      while (marksOf(html.charCodeAt(at)) & UNQUOTED) at++;
      c = html.charCodeAt(at);
      if (at === from || (c !== GREATER && !(marksOf(c) & BLANK))) return false;
    }
    addAttribute(attrs, name, html.slice(from, at));
    if (quoted) {
      c = html.charCodeAt(++at);
      if (c !== GREATER && c !== SOLIDUS && !(marksOf(c) & BLANK)) return false;
    }
  }
  t._flushRun('');
  t.currentToken = {
    type: closing ? Token.TokenType.END_TAG : Token.TokenType.START_TAG,
    tagName,
    tagID: 0,
    selfClosing,
    ackSelfClosing: false,
    attrs,
    location: null,
  };
  t.preprocessor.pos = at;
  t.emitCurrentTagToken();
  return true;
}

/**
 * Where plain text ends that goes on at `end`; the two marks are those that the state itself must look at.
 */
function endOfRun(html: string, end: number, mark: number, otherMark: number): number {
  for (
    let c = html.charCodeAt(end);
    c >= 0 &&
    c !== mark &&
    c !== otherMark &&
    c !== AMPERSAND &&
    c !== 0 &&
    c !== CR &&
    (c & 0xf800) !== 0xd800;
    c = html.charCodeAt(end)
  )
    end++;
  return end;
}

/** Lets a state go on over the plain text that follows the character it has just taken. */
function stride(t: Innards, mark: number, otherMark: number): void {
  const source = t.preprocessor;
  // a CR was read as LF, and the LF after it is still to be left out
  if (t.runEnd !== source.pos + 1 || source.html.charCodeAt(source.pos) === CR) return;
  t.runEnd = endOfRun(source.html, t.runEnd, mark, otherMark);
  source.pos = t.runEnd - 1;
}

/** The same for states that make character tokens, which are of one kind each: white space and other. */
function strideText(t: Innards, ownEndTag: boolean): void {
  const kind = t.currentCharacterToken?.type;
  if (kind === Token.TokenType.CHARACTER) {
    stride(t, LESS, LESS);
    if (!ownEndTag) return;
    // text that only its own end tag ends: any other `<` is text too
    const source = t.preprocessor;
    while (
      t.runEnd === source.pos + 1 &&
      source.html.charCodeAt(t.runEnd) === LESS &&
      marksOf(source.html.charCodeAt(t.runEnd + 1)) & (NAME | BLANK) &&
      source.html.charCodeAt(t.runEnd + 1) !== BANG
    ) {
      t.runEnd = endOfRun(source.html, t.runEnd + 1, LESS, LESS);
      source.pos = t.runEnd - 1;
    }
  } else if (kind === Token.TokenType.WHITESPACE_CHARACTER) {
    const source = t.preprocessor;
    if (t.runEnd !== source.pos + 1 || source.html.charCodeAt(source.pos) === CR) return;
    let end = t.runEnd;
    for (
      let c = source.html.charCodeAt(end);
      c === SPACE || c === LF || c === TAB;
      c = source.html.charCodeAt(end)
    )
      end++;
    t.runEnd = end;
    source.pos = end - 1;
  }
}

quick._stateData = function (cp) {
  if (cp === LESS && takeTag(this)) return;
  slow._stateData.call(this, cp);
  if (this.state === TokenizerMode.DATA) strideText(this, false);
};

for (const name of ['_stateScriptData', '_stateRawtext', '_stateRcdata'] as const) {
  const step = slow[name];
  quick[name] = function (cp) {
    const { state } = this;
    step.call(this, cp);
    if (this.state === state) strideText(this, true);
  };
}

for (const [name, mark, otherMark] of [
  ['_stateComment', HYPHEN, LESS],
  ['_stateAttributeValueDoubleQuoted', QUOTE, QUOTE],
  ['_stateAttributeValueSingleQuoted', APOSTROPHE, APOSTROPHE],
] as const) {
  const step = slow[name];
  quick[name] = function (cp) {
    const { state } = this;
    step.call(this, cp);
    if (this.state === state) stride(this, mark, otherMark);
  };
}
