/**
 * HTML bytes' text -> facts about the page, by the HTML standard's own tree construction (parse5). Never
 * throws, never runs anything.
 */
import { html as ns, type DefaultTreeAdapterTypes as T } from 'parse5';
import { namingText } from './accessible-name';
import { parsePlaced, startOf, textOf, type Placed } from './html-tree';
import { Collector } from './html/collector';
import { KINDS, type Kind } from './html/elements';
import type { PageFacts } from './page-facts';

export type * from './page-facts';

/** How far the walk has come within an element. */
interface Frame {
  node: T.ParentNode;
  index: number;
  silent: boolean;
  inHead: boolean;
  block: boolean;
}

/** What stands in a noscript, or between a template's tags. */
function inertSource(el: T.Element, source: string): string {
  if (el.tagName === 'noscript') return textOf(el);
  const start = (el as Placed).end + 1;
  const end = source.indexOf('</template', start);
  return source.slice(start, Math.min(end < 0 ? source.length : end, start + 20_000));
}

/** The walk goes up again out of an element. */
function leave({ node, block, silent }: Frame, collector: Collector): void {
  const { tagName } = node as T.Element;
  if (tagName === 'label') collector.labelsAround.pop();
  if (!block) return;
  if (!silent) collector.gap();
  if (tagName === 'form') collector.form = null;
}

/** A body whose tag stands nowhere: its first element ended the head. */
function noteUnwrittenHeadEnd(body: T.Element, collector: Collector, source: string): void {
  if (startOf(body, source) < 0)
    collector.headEndedBy = body.childNodes.find((n): n is T.Element => 'tagName' in n);
}

function readElement(el: T.Element, kind: Kind | undefined, inHead: boolean, collector: Collector): void {
  collector.attributes(el);
  kind?.read?.(collector, el, inHead);
}

/** Reads an element. @returns the way down into it, where it has children that count */
function enter(el: T.Element, parent: Frame, collector: Collector, source: string): Frame | undefined {
  const { tagName } = el;
  const kind = KINDS.get(tagName);
  const inHead = parent.inHead || tagName === 'head';
  if (el.namespaceURI === ns.NS.HTML) readElement(el, kind, inHead, collector);
  if (tagName === 'template' || tagName === 'noscript') {
    collector.hide(inertSource(el, source), tagName, el);
    return undefined;
  }
  const isBody = tagName === 'body';
  if (isBody) noteUnwrittenHeadEnd(el, collector, source);
  const { silent: isSilent = false, block = false } = kind ?? {};
  const silent = !isBody && (parent.silent || isSilent);
  if (!silent && block) collector.gap();
  if (!el.childNodes.length) return undefined;
  if (tagName === 'label') collector.labelsAround.push(namingText(el).trim() !== '');
  return { node: el, index: 0, silent, inHead, block };
}

/**
 * Reads a page.
 * @param source the decoded text of the document
 * @param pageUrl the address it came from, to resolve its links against
 */
export function extractPage(source: string, pageUrl: string): PageFacts {
  const collector = new Collector(source, pageUrl);
  const root: Frame = {
    node: parsePlaced(source),
    index: 0,
    silent: true,
    inHead: false,
    block: false,
  };
  const path = [root];
  while (path.length) {
    const frame = path[path.length - 1]!;
    const node = frame.node.childNodes[frame.index++];
    if (!node) {
      path.pop();
      leave(frame, collector);
    } else if (node.nodeName === '#text') {
      if (!frame.silent) collector.addText((node as T.TextNode).value);
    } else if (node.nodeName === '#comment') {
      const { data } = node as T.CommentNode;
      if (data.includes('<')) collector.hide(data, 'comment');
    } else if ('tagName' in node) {
      const below = enter(node as T.Element, frame, collector, source);
      if (below) path.push(below);
    }
  }
  return collector.done();
}
