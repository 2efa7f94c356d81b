/**
 * Style sheets: which fonts are declared, which are used, what is loaded. A reader of tokens, not a full
 * parser: it never throws and is linear.
 */

export interface FontFace {
  family: string;
  sources: string[];
  line: number;
}
export interface CssFacts {
  fontFaces: FontFace[];
  /** Families that a rule outside @font-face names, lower case. */
  families: string[];
  /** Addresses of url() and @import as they stand, data: addresses left out (capped). */
  urls: string[];
  /** Those of @import, which load style sheets. */
  imports?: string[];
}

const CAP = 300;

/** Blanks comments and keeps their line breaks, so that lines stay true. */
function withoutComments(css: string): string {
  let out = '';
  let at = 0;
  for (let start = css.indexOf('/*'); start >= 0; start = css.indexOf('/*', at)) {
    const end = css.indexOf('*/', start + 2);
    const comment = css.slice(start, end < 0 ? css.length : end + 2);
    out += css.slice(at, start) + '\n'.repeat(comment.split('\n').length - 1) + ' ';
    at = start + comment.length;
  }
  return out + css.slice(at);
}

const WHITE = /\s/;
/** Longest address that is read. */
const LONGEST = 2000;

/**
 * The quoted or bare text that starts at a place, up to its end mark; undefined when it does not end in time.
 */
function tokenAt(css: string, start: number): string | undefined {
  let at = start;
  while (at < css.length && at < start + 100 && WHITE.test(css[at]!)) at++;
  const quote = css[at] === '"' || css[at] === "'" ? css[at]! : undefined;
  const piece = css.slice(quote ? at + 1 : at, at + LONGEST + 1);
  const end = quote ? piece.indexOf(quote) : piece.search(/[)\s"']/);
  return end < 0 ? undefined : piece.slice(0, end).trim();
}

/** What an address in a style sheet is loaded by. */
const LOADS = /(@import\s{1,100}(?:url\(|(?=["'])))|url\(/gi;

/** The addresses that a piece of CSS loads, by url() and @import. */
function loadsIn(css: string): { urls: string[]; imports: string[] } {
  const urls = new Set<string>();
  const imports = new Set<string>();
  for (const m of css.matchAll(LOADS)) {
    const url = tokenAt(css, m.index + m[0].length);
    if (!url || /^data:/i.test(url)) continue;
    urls.add(url);
    if (m[1] !== undefined) imports.add(url);
    if (urls.size >= CAP) break;
  }
  return { urls: [...urls], imports: [...imports] };
}
/** All of them. */
export const cssUrls = (css: string): string[] => loadsIn(css).urls;

/** The families that a style attribute's declarations name, and the addresses that they load. */
export const readStyleAttribute = (style: string): { families: string[]; urls: string[] } => ({
  families: /font/i.test(style) ? familiesIn(style.slice(0, 4000)) : [],
  urls: /url\(/i.test(style) ? cssUrls(style.slice(0, 4000)) : [],
});

/**
 * Innermost blocks with what stands before them: that is where declarations are. One pass from mark to mark.
 */
function* blocks(css: string): Generator<{ prelude: string; body: string; at: number }> {
  let before = 0,
    open = -1;
  for (const m of css.matchAll(/[{}]/g)) {
    if (m[0] === '{') {
      if (open >= 0) before = open + 1;
      open = m.index;
      continue;
    }
    if (open >= 0) yield { prelude: css.slice(before, open), body: css.slice(open + 1, m.index), at: before };
    open = -1;
    before = m.index + 1;
  }
}

/**
 * The declarations of a block. Semicolons within quotes or url() are rare enough to be left to the reader of
 * the value.
 */
function declarations(body: string): [name: string, value: string][] {
  return body.split(';').flatMap((d): [string, string][] => {
    const colon = d.indexOf(':');
    return colon < 1
      ? []
      : [[d.slice(0, colon).trim().toLowerCase(), d.slice(colon + 1, colon + LONGEST_VALUE)]];
  });
}

/** Longest value that is read: a list of families, or a font with its size. */
const LONGEST_VALUE = 600;

const bare = (family: string): string =>
  family
    .trim()
    .replace(/^(["'])(.*)\1$/, '$2')
    .trim();
const GENERIC = new Set([
  'serif',
  'sans-serif',
  'monospace',
  'cursive',
  'fantasy',
  'system-ui',
  'ui-serif',
  'ui-sans-serif',
  'ui-monospace',
  'ui-rounded',
  'math',
  'emoji',
  'inherit',
  'initial',
  'unset',
  'revert',
]);

/** What follows size and line height in the `font` shorthand. */
const AFTER_SIZE =
  /(?:[\d.](?:px|r?em|ex|ch|pt|pc|in|cm|mm|q|%|[dsl]?v[a-z]{1,3})|\)|small|medium|large|smaller|larger)(?:\s{0,20}\/\s{0,20}[^\s/]{1,40})?\s{1,20}(.+)$/i;

/** The families of a `font` or `font-family` value. Quoted names may hold commas. */
function familiesOf(value: string, shorthand: boolean): string[] {
  const parts = value.replace(/!important/i, '').match(/(?:"[^"]*"|'[^']*'|[^,])+/g) ?? [];
  // the first part of the shorthand carries style, weight and size before the family
  const first = shorthand ? AFTER_SIZE.exec(parts[0] ?? '')?.[1] : parts[0];
  return [first ?? '', ...parts.slice(1)]
    .map((p) => bare(p).toLowerCase())
    .filter((f) => f && !GENERIC.has(f));
}

/** Custom properties often hold the family that rules take up with var(). */
const namesFamily = (property: string): boolean =>
  property === 'font' ||
  property === 'font-family' ||
  (property.startsWith('--') && property.includes('font'));

/** The families that a rule's declarations name. */
function familiesIn(body: string): string[] {
  const out: string[] = [];
  for (const [property, value] of declarations(body))
    if (namesFamily(property)) out.push(...familiesOf(value, property === 'font'));
  return out;
}

/** The family that an @font-face rule declares. */
function declaredFamily(body: string): string | undefined {
  for (const [property, value] of declarations(body)) if (property === 'font-family') return bare(value);
  return undefined;
}

/** Reads one style sheet. */
export function readCss(source: string): CssFacts {
  const css = withoutComments(source.slice(0, 2_000_000));
  const fontFaces: FontFace[] = [];
  const families = new Set<string>();
  let line = 1;
  let counted = 0;
  const lineAt = (offset: number): number => {
    for (; counted < offset; counted++) if (css.charCodeAt(counted) === 10) line++;
    return line;
  };
  for (const { prelude, body, at } of blocks(css)) {
    if (/@font-face\s*$/i.test(prelude.slice(-60))) {
      const family = declaredFamily(body);
      if (family && fontFaces.length < CAP)
        fontFaces.push({ family, sources: cssUrls(body), line: lineAt(at + prelude.length) });
    } else for (const family of familiesIn(body)) if (families.size < CAP) families.add(family);
  }
  const { urls, imports } = loadsIn(css);
  return { fontFaces, families: [...families], urls, ...(imports.length ? { imports } : {}) };
}
