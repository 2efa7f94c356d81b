/**
 * Whether a link, button or form field has an accessible name: the steps of the W3C's Accessible Name and
 * Description Computation that can be taken from markup alone.
 */
import type { DefaultTreeAdapterTypes as T } from 'parse5';
import { attr } from './html-tree';
import type { Unnamed } from './page-facts';

const filled = (value: string | undefined): boolean => value !== undefined && value.trim() !== '';

/** What an element itself says in place of a text. */
function ownWords(el: T.Element): string {
  const alt = el.tagName === 'img' || el.tagName === 'area' ? attr(el, 'alt') : undefined;
  return [attr(el, 'aria-label'), alt, attr(el, 'title')].find(filled) ?? '';
}

/** Elements whose text is what a visitor chose or wrote, and no name. */
const VALUES = new Set(['select', 'textarea', 'script', 'style', 'template']);

/**
 * The text that an element gives as a name to itself, or to what it labels: what is written in it, and the alt,
 * label or title of what has no text (Accessible Name and Description Computation, 2F).
 */
export function namingText(el: T.Element): string {
  let out = ownWords(el);
  const stack: T.ChildNode[] = [...el.childNodes].reverse();
  for (let steps = 0; stack.length && steps < 500 && out.length < 400; steps++) {
    const node = stack.pop()!;
    if (node.nodeName === '#text') out += (node as T.TextNode).value;
    if (!('tagName' in node) || VALUES.has(node.tagName)) continue;
    out += ` ${ownWords(node)} `;
    for (let i = node.childNodes.length - 1; i >= 0; i--) stack.push(node.childNodes[i]!);
  }
  return out;
}

/** Not shown or not told to assistive technology: nothing has to name it. */
const isHidden = (el: T.Element): boolean =>
  attr(el, 'type')?.toLowerCase() === 'hidden' ||
  attr(el, 'aria-hidden') === 'true' ||
  attr(el, 'hidden') !== undefined;

const namedByAttribute = (el: T.Element): boolean =>
  filled(attr(el, 'aria-label')) || filled(attr(el, 'title'));

/** An input that is a button: submit and reset have a name of their own. */
function namedInput(el: T.Element): boolean {
  const type = attr(el, 'type')?.toLowerCase();
  if (type === 'image') return filled(attr(el, 'alt'));
  return type !== 'button' || filled(attr(el, 'value'));
}

/** Whether a link or button without text is named. */
function namedWithoutText(el: T.Element, kind: 'link' | 'button'): boolean {
  if (kind === 'button' && el.tagName === 'input') return namedInput(el);
  return el.tagName === 'area' ? filled(attr(el, 'alt')) : filled(namingText(el));
}

/** Where else on the page the name of an element may stand: other elements, or a label for it. */
export interface NamedElsewhere {
  by: readonly string[];
  labelFor?: string;
}

/**
 * @param inLabel the element stands inside a label that says something
 * @param text what is written between its tags
 * @returns where else to look, where only another element of the page can name it
 */
export function accessibleName(
  el: T.Element,
  kind: Unnamed['kind'],
  inLabel: boolean,
  text: string,
): 'named' | 'unnamed' | NamedElsewhere {
  // most links: whatever else they have, their text names them
  if (kind !== 'field' && filled(text)) return 'named';
  if (isHidden(el) || namedByAttribute(el)) return 'named';
  if (kind !== 'field' ? namedWithoutText(el, kind) : inLabel) return 'named';
  const by = (attr(el, 'aria-labelledby') ?? '').split(/\s+/).filter(Boolean);
  const id = kind === 'field' ? attr(el, 'id') : undefined;
  return by.length || id ? { by, ...(id ? { labelFor: id } : {}) } : 'unnamed';
}

const MOST_IDS = 5000;

/** The labels of a page, the elements that others may be named by, and those that wait for their name. */
export class LabelBook {
  private readonly labelled = new Set<string>();
  private readonly elements = new Map<string, T.Element>();
  private readonly waiting: { named: NamedElsewhere; fact: Unnamed }[] = [];

  /** A label for an element; one without a text labels nothing. */
  add(id: string | undefined, label: T.Element): void {
    if (id && filled(namingText(label))) this.labelled.add(id);
  }
  /** An element with an id; the first of several counts (DOM, getElementById). */
  see(id: string, el: T.Element): void {
    if (this.elements.size < MOST_IDS && !this.elements.has(id)) this.elements.set(id, el);
  }
  await(named: NamedElsewhere, fact: Unnamed): void {
    this.waiting.push({ named, fact });
  }

  private isNamed({ by, labelFor }: NamedElsewhere): boolean {
    if (labelFor !== undefined && this.labelled.has(labelFor)) return true;
    return by.some((id) => {
      const el = this.elements.get(id);
      return el ? filled(namingText(el)) : this.elements.size >= MOST_IDS;
    });
  }
  /** Those that nothing names. */
  unnamed(): Unnamed[] {
    return this.waiting.filter((w) => !this.isNamed(w.named)).map((w) => w.fact);
  }
}
