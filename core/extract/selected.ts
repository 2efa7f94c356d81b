/** Elements of a page by CSS selector, for the agency's own checks. */
import { compile, selectAll } from 'css-select';
import type { AnyNode, Element } from 'domhandler';
import { textContent, getOuterHTML } from 'domutils';
import { parse } from 'parse5';
import { adapter } from 'parse5-htmlparser2-tree-adapter';

export interface Selected {
  elements: { text: string; attributes: Record<string, string>; raw: string }[];
  count: number;
  error?: string;
}

const MOST = 5;
const cut = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most)}…` : text);

/** Why a text is no CSS selector; undefined when it is one. */
export function selectorFault(text: string): string | undefined {
  try {
    compile(text);
    return undefined;
  } catch (error) {
    return (error as Error).message.slice(0, 200);
  }
}

/**
 * @param selectors at most a few dozen
 * @returns the first elements that each selector finds; what is no selector says why
 */
export function selectElements(html: string, selectors: readonly string[]): Record<string, Selected> {
  const out: Record<string, Selected> = {};
  const tree = parse(html, { treeAdapter: adapter });
  for (const selector of selectors) {
    try {
      const found = selectAll<AnyNode, Element>(selector, tree);
      out[selector] = {
        count: found.length,
        elements: found.slice(0, MOST).map((e) => ({
          text: cut(textContent(e).replace(/\s+/g, ' ').trim(), 500),
          attributes: Object.fromEntries(
            Object.entries(e.attribs)
              .slice(0, 30)
              .map(([k, v]) => [k, cut(v, 500)]),
          ),
          raw: cut(getOuterHTML(e), 300),
        })),
      };
    } catch (error) {
      out[selector] = { count: 0, elements: [], error: (error as Error).message.slice(0, 200) };
    }
  }
  return out;
}
