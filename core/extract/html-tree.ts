/**
 * parse5's tree with the end of each start tag noted on its element, and with plain text and plain tags taken
 * in one stride (quick-tokenizer).
 * parse5's own location tracking copies an object per token and doubles the time; one number per element is
 * all that evidence needs.
 */
import {
  Parser,
  defaultTreeAdapter,
  type DefaultTreeAdapterMap,
  type DefaultTreeAdapterTypes as T,
  type Token,
} from 'parse5';
import { QuickTokenizer } from './quick-tokenizer';

/** An element with the offset of the `>` that ends its start tag. */
export type Placed = T.Element & { end: number };

let tagEnd = 0;

const adapter = {
  ...defaultTreeAdapter,
  createElement(tagName: string, namespaceURI: T.Element['namespaceURI'], attrs: Token.Attribute[]): Placed {
    return { nodeName: tagName, tagName, attrs, namespaceURI, childNodes: [], parentNode: null, end: tagEnd };
  },
};

class PlacedParser extends Parser<DefaultTreeAdapterMap> {
  constructor(...args: ConstructorParameters<typeof Parser<DefaultTreeAdapterMap>>) {
    super(...args);
    this.tokenizer = new QuickTokenizer(this.options, this);
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
  // hardly anything has more than one text
  const [only] = el.childNodes;
  if (el.childNodes.length === 1 && only!.nodeName === '#text') return (only as T.TextNode).value;
  let out = '';
  const stack: T.ChildNode[] = [...el.childNodes].reverse();
  while (stack.length) {
    const node = stack.pop()!;
    if (node.nodeName === '#text') out += (node as T.TextNode).value;
    else if ('childNodes' in node)
      for (let i = node.childNodes.length - 1; i >= 0; i--) stack.push(node.childNodes[i]!);
    if (out.length > 200_000) break;
  }
  return out;
}
