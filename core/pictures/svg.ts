/** Whether a drawing (SVG) holds anything but a drawing. */
import { imageSize } from 'image-size';
import { SaxesParser } from 'saxes';
import { MOST_PIXELS } from './settings';
import { svgCostFault, type SvgPart } from './svg-cost';

/** Elements that run, load, or hold something that is no drawing. */
const ACTIVE = new Set(['script', 'foreignobject', 'iframe', 'embed', 'object', 'audio', 'video', 'handler']);
const HREFS = new Set(['href', 'xlink:href', 'src']);
/** Pictures that stand in the drawing itself. */
const INLINE = /^data:image\/(?:png|jpeg|gif|webp);base64,/i;
/** Letters that other readers see as this one does. */
const ENCODINGS = /^(?:utf-8|us-ascii|iso-8859-1|windows-1252)$/i;
const MOST_ELEMENTS = 50_000;
const DEEPEST = 200;

const isOwn = (reference: string): boolean => /^\s*(?:#|$)/.test(reference) || INLINE.test(reference.trim());

/** References of a style: `url(…)` and `@import`. */
function strayStyle(css: string): string | undefined {
  const plain = css.replace(/\\([0-9a-f]{1,6})\s?/gi, (_, hex: string) => {
    const code = parseInt(hex, 16);
    return code <= 0x10ffff ? String.fromCodePoint(code) : '';
  });
  if (/@import/i.test(plain)) return '@import';
  return [...plain.matchAll(/url\(\s*["']?([^"')]*)/gi)].map((m) => m[1]!).find((r) => !isOwn(r));
}

/** Pixels of a picture within the drawing; none where its head cannot be read, since then it is not drawn either. */
function inlinePixels(reference: string): number {
  try {
    const text = atob(reference.slice(reference.indexOf(',') + 1));
    const { width, height } = imageSize(Uint8Array.from(text, (c) => c.charCodeAt(0)));
    return width * height;
  } catch {
    return 0;
  }
}

function attributeFault(name: string, value: string): string | undefined {
  const key = name.toLowerCase();
  if (/^on/.test(key)) return `it runs something (${name})`;
  if (HREFS.has(key) && !isOwn(value)) return `it refers to ${value.slice(0, 80)}`;
  const stray = strayStyle(value);
  return stray === undefined ? undefined : `it refers to ${stray.slice(0, 80)}`;
}

/**
 * @returns why a drawing is not taken, as the end of a sentence with its line ("it holds a script, line 4");
 * undefined for a plain one
 */
export function svgFault(text: string): string | undefined {
  let fault: string | undefined;
  let elements = 0;
  let style = '';
  let css = '';
  let pixels = 0;
  let root: SvgPart | undefined;
  const open: SvgPart[] = [];
  const parser = new SaxesParser({ xmlns: false, position: true });
  const found = (why: string | undefined): void => {
    fault ??= why === undefined ? undefined : `${why}, line ${parser.line}`;
  };
  parser.on('error', (error) => {
    fault ??= `it is no well-formed XML (${error.message.slice(0, 80)})`;
  });
  parser.on('xmldecl', ({ encoding = 'utf-8' }) => {
    if (!ENCODINGS.test(encoding)) found(`it is written in ${encoding.slice(0, 40)}`);
  });
  parser.on('doctype', (doctype) => {
    if (/\[|entity/i.test(doctype)) found('it declares entities');
  });
  parser.on('processinginstruction', ({ target }) => {
    if (target !== 'xml') found(`it has an instruction (${target})`);
  });
  parser.on('opentag', ({ name, attributes }) => {
    const plain = name.replace(/^.*:/, '').toLowerCase();
    const texts = Object.fromEntries(Object.entries(attributes).map(([key, value]) => [key, String(value)]));
    const part: SvgPart = { name: plain, id: texts.id, attributes: texts, children: [] };
    if (!root && plain !== 'svg') found('it is no SVG');
    root ??= part;
    open.at(-1)?.children.push(part);
    open.push(part);
    if (++elements > MOST_ELEMENTS || open.length > DEEPEST) found('it has too many parts');
    if (ACTIVE.has(plain)) found(`it holds ${plain === 'script' ? 'a script' : `<${name}>`}`);
    for (const [key, value] of Object.entries(texts)) {
      found(attributeFault(key, value));
      if (HREFS.has(key.toLowerCase()) && INLINE.test(value.trim())) pixels += inlinePixels(value.trim());
      if (pixels > MOST_PIXELS) found('the pictures within it are too large');
    }
    style = '';
  });
  parser.on('text', (piece) => {
    style += piece;
  });
  parser.on('cdata', (piece) => {
    style += piece;
  });
  parser.on('closetag', ({ name }) => {
    open.pop();
    if (/(?:^|:)style$/i.test(name)) {
      css += style;
      const stray = strayStyle(style);
      if (stray !== undefined) found(`it refers to ${stray.slice(0, 80)}`);
    }
    style = '';
  });
  // a piece at a time, so that a hopeless file is left early
  for (let at = 0; at < text.length && !fault; at += 65_536) parser.write(text.slice(at, at + 65_536));
  if (!fault) parser.close();
  return fault ?? (root ? svgCostFault(root, css) : 'it is no SVG');
}
