/**
 * How much work a drawing (SVG) asks for, reckoned before anything draws it. A few hundred bytes can ask for hours:
 * references that multiply, filters over large surfaces, patterns and masks within each other.
 */

/** One element, with what it refers to. */
export interface SvgPart {
  name: string;
  id?: string;
  attributes: Readonly<Record<string, string>>;
  children: SvgPart[];
}

/** Elements drawn, each as often as references repeat it. */
const MOST_DRAWN = 200_000;
/** Passes over the whole surface: about 20 s of work. */
const MOST_PASSES = 1500;
/** References that lead on to others. */
const LONGEST_CHAIN = 500;
/** A style that is not a plain class, id or element may fit every element. */
const ANY = '*';

interface Cost {
  drawn: number;
  passes: number;
}
const NOTHING: Cost = { drawn: 0, passes: 0 };
const plus = (a: Cost, b: Cost, times = 1): Cost => ({
  drawn: a.drawn + b.drawn * times,
  passes: a.passes + b.passes * times,
});

/** The numbers of an attribute; where it says none, the usual one. */
function largest(text: string | undefined, usual: number): number {
  const numbers = (text ?? '').match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi)?.map(Number) ?? [];
  return numbers.length ? numbers.reduce((most, n) => Math.max(most, Math.abs(n)), 0) : usual;
}

/**
 * Passes of a filter's steps. One pass is what feOffset takes: 12 to 18 ms at 1600 x 1600 px. Measured with the
 * librsvg of sharp 0.35.5, one thread, December 2026.
 */
const STEPS: Record<string, (a: SvgPart['attributes']) => number> = {
  feturbulence: (a) => 16 * largest(a.numOctaves, 1),
  fegaussianblur: () => 100,
  fedropshadow: () => 105,
  femorphology: () => 1400,
  feconvolvematrix: (a) => 7 * largest(a.order, 3) ** 2,
  fediffuselighting: () => 40,
  fespecularlighting: () => 40,
};
const MASK = 4;

const ids = (text: string): string[] =>
  [...text.matchAll(/url\(\s*["']?#([^"')]+)/gi)].map((m) => m[1]!.trim());

/** What each class, id and element name refers to by the drawing's own style sheets. */
function styledBy(css: string): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const [, selectors = '', rules = ''] of css.matchAll(/([^{}]*)\{([^{}]*)\}/g)) {
    const refers = ids(rules);
    if (!refers.length) continue;
    for (const selector of selectors.split(',')) {
      const plain = /^\s*([.#]?[\w-]+)\s*$/.exec(selector)?.[1] ?? ANY;
      const key = /^[.#]/.test(plain) || plain === ANY ? plain : plain.toLowerCase();
      found.set(key, [...(found.get(key) ?? []), ...refers]);
    }
  }
  return found;
}

class Reckoning {
  private readonly byId = new Map<string, SvgPart>();
  private readonly known = new Map<SvgPart, Cost>();
  private readonly open = new Set<SvgPart>();
  private readonly styles: Map<string, string[]>;
  fault?: string;

  constructor(
    private readonly root: SvgPart,
    css: string,
  ) {
    this.styles = styledBy(css);
    this.index(root);
  }

  private index(part: SvgPart): void {
    if (part.id !== undefined && !this.byId.has(part.id)) this.byId.set(part.id, part);
    for (const child of part.children) this.index(child);
  }

  total(): Cost {
    return this.of(this.root);
  }

  /** What drawing an element costs, with all that it refers to. */
  private of(part: SvgPart): Cost {
    const before = this.known.get(part);
    if (before) return before;
    if (this.open.has(part)) this.fault ??= 'it refers to itself';
    if (this.open.size >= LONGEST_CHAIN) this.fault ??= 'its references lead on too far';
    if (this.fault) return NOTHING;
    this.open.add(part);
    let cost = this.own(part);
    for (const child of part.children) if (!isApart(child)) cost = plus(cost, this.of(child));
    for (const id of this.references(part)) cost = plus(cost, this.applied(id, part));
    this.open.delete(part);
    this.known.set(part, cost);
    return cost;
  }

  private own(part: SvgPart): Cost {
    return { drawn: 1, passes: isStep(part) ? (STEPS[part.name]?.(part.attributes) ?? 1) : 0 };
  }

  private *references(part: SvgPart): Generator<string> {
    const { id, name, attributes } = part;
    for (const [key, value] of Object.entries(attributes)) {
      if (/^(?:xlink:)?href$/i.test(key)) {
        const target = /^\s*#(.+?)\s*$/.exec(value)?.[1];
        // gradients inherit their stops by it
        if (target !== undefined && !/gradient$/.test(name)) yield target;
      } else yield* ids(value);
    }
    if (isApart(part) || isStep(part)) return;
    const names = (attributes.class ?? '').split(/\s+/).map((c) => `.${c}`);
    for (const key of [...names, `#${id ?? ''}`, name, ANY]) yield* this.styles.get(key) ?? [];
  }

  /** What it adds that an element refers to another. */
  private applied(id: string, by: SvgPart): Cost {
    const target = this.byId.get(id);
    if (!target) return NOTHING;
    if (/gradient$/.test(target.name)) return NOTHING;
    const surface = {
      drawn: 0,
      passes: { mask: MASK, clippath: 1, pattern: 1, filter: 1 }[target.name] ?? 0,
    };
    const times = target.name === 'marker' ? corners(by.attributes) : 1;
    return plus(surface, this.of(target), times);
  }
}

/** Elements that are drawn only where something refers to them (SVG 2, 5.3 and 5.5). */
const isApart = ({ name }: SvgPart): boolean =>
  /^(?:defs|symbol|clippath|mask|pattern|marker|filter|(?:linear|radial)gradient)$/.test(name);

/** Whether it is a step of a filter. */
const isStep = ({ name }: SvgPart): boolean => /^fe[a-z]+$/.test(name);

/** How many points a line has at most, each of which may carry a marker. */
const corners = ({ d = '', points = '' }: SvgPart['attributes']): number =>
  Math.max(2, ((d + points).match(/\d+/g)?.length ?? 0) / 2);

/**
 * @param css the text of all its style elements
 * @returns why a drawing is not drawn, as the end of a sentence; undefined where it asks for no more than it may
 */
export function svgCostFault(root: SvgPart, css: string): string | undefined {
  const reckoning = new Reckoning(root, css);
  const { drawn, passes } = reckoning.total();
  if (reckoning.fault) return reckoning.fault;
  if (drawn > MOST_DRAWN) return 'its references repeat its parts too often';
  if (passes > MOST_PASSES) return 'its filters, masks and patterns take too long to draw';
  return undefined;
}
