/**
 * parse5's tree with the end of each start tag noted on its element, and with plain text taken in one stride.
 * parse5's own location tracking copies an object per token and doubles the time; one number per element is all that evidence needs.
 */
import { Parser, Token, defaultTreeAdapter, type DefaultTreeAdapterMap, type DefaultTreeAdapterTypes as T } from 'parse5';

/** An element with the offset of the `>` that ends its start tag. */
export type Placed = T.Element & { end: number };

let tagEnd = 0;

const adapter = {
  ...defaultTreeAdapter,
  createElement(tagName: string, namespaceURI: T.Element['namespaceURI'], attrs: Token.Attribute[]): Placed {
    return { nodeName: tagName, tagName, attrs, namespaceURI, childNodes: [], parentNode: null, end: tagEnd };
  },
};

/** The parts of parse5's tokenizer that run over plain text (version pinned; a test compares the trees). */
interface Innards {
  preprocessor: { html: string; pos: number };
  state: number;
  runEnd: number;
  currentCharacterToken: { type: number } | null;
  currentToken: { tagName: string } | null;
  currentAttr: { name: string };
  _stateData(cp: number): void;
  _stateScriptData(cp: number): void;
  _stateRawtext(cp: number): void;
  _stateRcdata(cp: number): void;
  _stateComment(cp: number): void;
  _stateAttributeValueDoubleQuoted(cp: number): void;
  _stateAttributeValueSingleQuoted(cp: number): void;
  _stateTagName(cp: number): void;
  _stateAttributeName(cp: number): void;
}
type TextState = '_stateData' | '_stateScriptData' | '_stateRawtext' | '_stateRcdata' | '_stateComment' | '_stateAttributeValueDoubleQuoted' | '_stateAttributeValueSingleQuoted';

/**
 * Lets the tokenizer take plain text in one stride instead of a call for each character.
 * What it must look at stops the stride: the end mark of the state, references, NUL, CR and surrogates.
 */
function hasten(t: Innards, name: TextState, endMark: number, inText: boolean, otherMark = endMark): void {
  const step = t[name];
  t[name] = function (this: Innards, cp: number): void {
    const before = this.state;
    step.call(this, cp);
    const source = this.preprocessor;
    if (this.state !== before || this.runEnd !== source.pos + 1) return;
    const { html } = source;
    const kind = inText ? this.currentCharacterToken?.type : Token.TokenType.CHARACTER;
    if (kind === Token.TokenType.WHITESPACE_CHARACTER) {
      if (html.charCodeAt(source.pos) === 0x0d) return;
      let end = this.runEnd;
      for (let c = html.charCodeAt(end); c === 0x20 || c === 0x0a || c === 0x09; c = html.charCodeAt(end)) end++;
      source.pos = end - 1;
      this.runEnd = end;
      return;
    }
    if (kind !== Token.TokenType.CHARACTER) return;
    // a CR was read as LF, and the LF after it is still to be left out
    if (html.charCodeAt(source.pos) === 0x0d) return;
    let end = this.runEnd;
    for (let c = html.charCodeAt(end); end < html.length && c !== endMark && c !== otherMark && c !== 0x26 && c !== 0 && c !== 0x0d && (c & 0xf800) !== 0xd800; c = html.charCodeAt(end)) end++;
    source.pos = end - 1;
    this.runEnd = end;
  };
}

/** Lets a name take all the small letters that follow at once. */
function hastenName(t: Innards, name: '_stateTagName' | '_stateAttributeName', add: (t: Innards, letters: string) => void): void {
  const step = t[name];
  t[name] = function (this: Innards, cp: number): void {
    const before = this.state;
    step.call(this, cp);
    if (this.state !== before || cp < 0x61 || cp > 0x7a) return;
    const source = this.preprocessor;
    const start = source.pos + 1;
    let end = start;
    for (let c = source.html.charCodeAt(end); (c >= 0x61 && c <= 0x7a) || c === 0x2d || (c >= 0x30 && c <= 0x39); c = source.html.charCodeAt(end)) end++;
    if (end === start) return;
    add(this, source.html.slice(start, end));
    source.pos = end - 1;
  };
}

class PlacedParser extends Parser<DefaultTreeAdapterMap> {
  constructor(...args: ConstructorParameters<typeof Parser<DefaultTreeAdapterMap>>) {
    super(...args);
    const t = this.tokenizer as unknown as Innards;
    hasten(t, '_stateData', 0x3c, true);
    hasten(t, '_stateScriptData', 0x3c, true);
    hasten(t, '_stateRawtext', 0x3c, true);
    hasten(t, '_stateRcdata', 0x3c, true);
    hasten(t, '_stateComment', 0x2d, false, 0x3c);
    hasten(t, '_stateAttributeValueDoubleQuoted', 0x22, false);
    hasten(t, '_stateAttributeValueSingleQuoted', 0x27, false);
    hastenName(t, '_stateTagName', (self, letters) => { self.currentToken!.tagName += letters; });
    hastenName(t, '_stateAttributeName', (self, letters) => { self.currentAttr.name += letters; });
  }

  override onStartTag(token: Token.TagToken): void {
    tagEnd = this.tokenizer.preprocessor.offset;
    super.onStartTag(token);
  }
}

/** Parses a document by the HTML standard, synchronously. */
export function parsePlaced(source: string): T.Document {
  return PlacedParser.parse(source, { treeAdapter: adapter });
}

/** Offset of the `<` of an element's start tag, or -1 when the parser made the element up. */
export function startOf(el: T.Element, source: string): number {
  const { end } = el as Placed;
  if (source.charCodeAt(end) !== 0x3e) return -1;
  const from = source.lastIndexOf('<', end);
  for (let i = from; i >= 0 && end - i < 100_000; i = source.lastIndexOf('<', i - 1)) {
    if (source.slice(i + 1, i + 1 + el.tagName.length).toLowerCase() === el.tagName) return i;
    if (i === 0) break;
  }
  return -1;
}

/** The value of an attribute; a look over a few is quicker than a record of all. */
export function attr(el: T.Element, name: string): string | undefined {
  const { attrs } = el;
  for (let i = 0; i < attrs.length; i++) if (attrs[i]!.name === name) return attrs[i]!.value;
  return undefined;
}

/** Text of an element and what is below it, without a recursion that deep nesting could break. */
export function textOf(el: T.Element): string {
  let out = '';
  const stack: T.ChildNode[] = [...el.childNodes].reverse();
  while (stack.length) {
    const node = stack.pop()!;
    if (node.nodeName === '#text') out += (node as T.TextNode).value;
    else if ('childNodes' in node) for (let i = node.childNodes.length - 1; i >= 0; i--) stack.push(node.childNodes[i]!);
    if (out.length > 200_000) break;
  }
  return out;
}
