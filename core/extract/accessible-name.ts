/**
 * Whether a link, button or form field has an accessible name: the steps of the W3C's Accessible Name and
 * Description Computation that can be taken from markup alone.
 */
import type { DefaultTreeAdapterTypes as T } from 'parse5';
import { attr } from './html-tree';
import type { Unnamed } from './page-facts';

const filled = (value: string | undefined): boolean => value !== undefined && value.trim() !== '';

/**
 * Whether something below names its parent: the alt of a picture, the title of an SVG, a label of its own.
 */
function namedBelow(el: T.Element): boolean {
  const stack: T.ChildNode[] = [...el.childNodes];
  for (let steps = 0; stack.length && steps < 500; steps++) {
    const node = stack.pop()!;
    if (!('tagName' in node)) continue;
    if (
      filled(attr(node, 'aria-label')) ||
      filled(attr(node, 'title')) ||
      ((node.tagName === 'img' || node.tagName === 'area') && filled(attr(node, 'alt')))
    )
      return true;
    stack.push(...node.childNodes);
  }
  return false;
}

/** Not shown or not told to assistive technology: nothing has to name it. */
const isHidden = (el: T.Element): boolean =>
  attr(el, 'type')?.toLowerCase() === 'hidden' ||
  attr(el, 'aria-hidden') === 'true' ||
  attr(el, 'hidden') !== undefined;

const namedByAttribute = (el: T.Element): boolean =>
  filled(attr(el, 'aria-label')) || filled(attr(el, 'aria-labelledby')) || filled(attr(el, 'title'));

/** An input that is a button: submit and reset have a name of their own. */
function namedInput(el: T.Element): boolean {
  const type = attr(el, 'type')?.toLowerCase();
  if (type === 'image') return filled(attr(el, 'alt'));
  return type !== 'button' || filled(attr(el, 'value'));
}

/** Whether a link or button without text is named. */
function namedWithoutText(el: T.Element, kind: 'link' | 'button'): boolean {
  if (kind === 'button' && el.tagName === 'input') return namedInput(el);
  return el.tagName === 'area' ? filled(attr(el, 'alt')) : namedBelow(el);
}

/**
 * @param inLabel the element stands inside a label
 * @param text what is written between its tags
 * @returns `labelledFrom` where only a label elsewhere on the page can name it
 */
export function accessibleName(
  el: T.Element,
  kind: Unnamed['kind'],
  inLabel: boolean,
  text: string,
): 'named' | 'unnamed' | { labelledFrom: string } {
  // most links: whatever else they have, their text names them
  if (kind !== 'field' && filled(text)) return 'named';
  if (isHidden(el) || namedByAttribute(el)) return 'named';
  if (kind !== 'field') return namedWithoutText(el, kind) ? 'named' : 'unnamed';
  if (inLabel) return 'named';
  const id = attr(el, 'id');
  return id ? { labelledFrom: id } : 'unnamed';
}

/** The labels of a page, and the fields that wait for theirs. */
export class LabelBook {
  private readonly labelled = new Set<string>();
  private readonly waiting: { id: string; fact: Unnamed }[] = [];
  add(id: string | undefined): void {
    if (id) this.labelled.add(id);
  }
  await(id: string, fact: Unnamed): void {
    this.waiting.push({ id, fact });
  }
  /** The fields that no label names. */
  unnamed(): Unnamed[] {
    return this.waiting.filter((w) => !this.labelled.has(w.id)).map((w) => w.fact);
  }
}
