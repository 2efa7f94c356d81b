/// <reference lib="dom" />
/// <reference lib="dom.iterable" />
/**
 * What is asked of a page from within. These functions are sent to the browser as they stand, so each has to be
 * whole by itself, and what it gives back is the page's word: foreign, and capped again outside.
 */

export interface Measured {
  width: number;
  sideways: number;
  wide: { element: string; right: number }[];
  small: { px: number; letters: number; element: string; text: string }[];
  layoutShift: number;
  firstPaintMs: number | null;
  height: number;
}

/** How a page lies on its screen. @param screenWidth in CSS pixels */
export function measure(screenWidth: number): Promise<Measured> {
  const MOST_WIDE = 5;
  const MOST_SIZES = 12;
  const MOST_ELEMENTS = 20_000;
  const named = (element: Element): string => {
    const id = element.id ? `#${element.id}` : '';
    const classes = [...element.classList].slice(0, 2).map((c) => `.${c}`);
    return `${element.localName}${id}${classes.join('')}`.slice(0, 80);
  };
  const root = document.documentElement;
  const clips = (element: Element): boolean =>
    /hidden|clip|auto|scroll/.test(getComputedStyle(element).overflowX);
  /** Whether what sticks out of it is cut off or has a bar of its own. */
  const isHeld = (element: Element): boolean => {
    for (let at = element.parentElement; at && at !== document.body && at !== root; at = at.parentElement)
      if (clips(at)) return true;
    return false;
  };
  // a page whose root cuts off what sticks out cannot be pushed sideways
  const isCutOff = [root, document.body].some((e) => e && /hidden|clip/.test(getComputedStyle(e).overflowX));
  const reach = document.scrollingElement?.scrollWidth ?? root.scrollWidth;
  const sideways = isCutOff ? 0 : Math.max(0, reach - screenWidth);
  const wide: Measured['wide'] = [];
  const sizes = new Map<number, Measured['small'][number]>();
  const noteWide = (element: Element, right: number): void => {
    if (sideways > 0 && right > screenWidth + 1 && wide.length < MOST_WIDE && !isHeld(element))
      wide.push({ element: named(element), right });
  };
  /** What stands in an element itself, and not in those within it. */
  const ownText = (element: Element): string => {
    let text = '';
    for (const node of element.childNodes) if (node.nodeType === 3) text += node.nodeValue ?? '';
    return text.replace(/\s+/g, ' ').trim();
  };
  /** What only a screen reader meets, or nobody, has no size that matters. */
  const isSeen = (element: Element, style: CSSStyleDeclaration): boolean =>
    style.visibility !== 'hidden' &&
    Number(style.opacity) !== 0 &&
    style.clipPath === 'none' &&
    !/^(?:script|style|noscript|template|option|sub|sup)$/.test(element.localName);
  const noteText = (element: Element): void => {
    const text = ownText(element);
    const letters = text.match(/\p{L}/gu)?.length ?? 0;
    const style = getComputedStyle(element);
    if (!letters || !isSeen(element, style)) return;
    const px = Math.round(Number.parseFloat(style.fontSize) * 10) / 10;
    const known = sizes.get(px);
    if (known) known.letters += letters;
    else sizes.set(px, { px, letters, element: named(element), text: text.slice(0, 80) });
  };
  const all = [...(document.body?.querySelectorAll('*') ?? [])].slice(0, MOST_ELEMENTS);
  for (const element of all) {
    const box = element.getBoundingClientRect();
    if (box.width < 1 || box.height < 1) continue;
    noteWide(element, Math.round(box.right + scrollX));
    noteText(element);
  }
  const small = [...sizes.values()].sort((a, b) => a.px - b.px).slice(0, MOST_SIZES);
  const paints = ['first-contentful-paint', 'first-paint'].flatMap((name) =>
    performance.getEntriesByName(name),
  );
  // Layout Instability API: the largest burst of shifts with less than a second between them and five seconds at most
  const shifted = new Promise<number>((resolve) => {
    try {
      const burst = { value: 0, from: 0, last: 0 };
      let most = 0;
      const observer = new PerformanceObserver((list) => {
        for (const entry of list.getEntries() as (PerformanceEntry & {
          value: number;
          hadRecentInput: boolean;
        })[]) {
          if (entry.hadRecentInput) continue;
          const goesOn = entry.startTime - burst.last < 1000 && entry.startTime - burst.from < 5000;
          if (!goesOn) Object.assign(burst, { value: 0, from: entry.startTime });
          burst.value += entry.value;
          burst.last = entry.startTime;
          most = Math.max(most, burst.value);
        }
      });
      observer.observe({ type: 'layout-shift', buffered: true });
      setTimeout(() => {
        observer.disconnect();
        resolve(most);
      }, 50);
    } catch {
      resolve(0);
    }
  });
  return shifted.then((layoutShift) => ({
    width: root.clientWidth,
    sideways,
    wide,
    small,
    layoutShift,
    firstPaintMs: paints[0]?.startTime ?? null,
    height: Math.max(root.scrollHeight, document.body?.scrollHeight ?? 0),
  }));
}

/** Keys of what is kept in the storage of this document. */
export function storedKeys(): { origin: string; local: string[]; session: string[] } {
  const keysOf = (storage: () => Storage): string[] => {
    try {
      return Object.keys(storage())
        .slice(0, 50)
        .map((key) => key.slice(0, 100));
    } catch {
      return [];
    }
  };
  return {
    origin: location.origin,
    local: keysOf(() => localStorage),
    session: keysOf(() => sessionStorage),
  };
}

/** Waits until the document has not changed for a moment. @param mostMs the longest wait */
export function untilStill(mostMs: number): Promise<void> {
  const QUIET_MS = 250;
  return new Promise((resolve) => {
    const end = (): void => {
      observer.disconnect();
      clearTimeout(quiet);
      clearTimeout(last);
      resolve();
    };
    let quiet = setTimeout(end, QUIET_MS);
    const last = setTimeout(end, mostMs);
    const observer = new MutationObserver(() => {
      clearTimeout(quiet);
      quiet = setTimeout(end, QUIET_MS);
    });
    observer.observe(document, { subtree: true, childList: true, characterData: true, attributes: true });
  });
}

/** Brings everything into sight once, and goes back to the top. @param most how far, in CSS pixels */
export async function walkDown(most: number): Promise<void> {
  const STEP_MS = 60;
  const end = Math.min(document.documentElement.scrollHeight, most);
  for (let y = 0; y < end; y += innerHeight) {
    scrollTo(0, y);
    await new Promise((r) => setTimeout(r, STEP_MS));
  }
  scrollTo(0, 0);
  await new Promise((r) => setTimeout(r, STEP_MS));
}

/** The document as it stands now. */
export const wholeDocument = (): string => document.documentElement?.outerHTML ?? '';
