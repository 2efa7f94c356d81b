/**
 * Which encoding a document is in: BOM, then the header, then a prescan of the first 1024 bytes (HTML
 * standard, "determining the character encoding" and "prescan a byte stream").
 */

import { TextDecoder } from '@exodus/bytes/encoding.js';

export type CharsetSource = 'bom' | 'header' | 'meta' | 'default';

const SPACE = new Set([0x09, 0x0a, 0x0c, 0x0d, 0x20]);
const isLetter = (b: number | undefined): boolean =>
  b !== undefined && ((b >= 0x41 && b <= 0x5a) || (b >= 0x61 && b <= 0x7a));

/** "Extracting a character encoding from a meta element" (HTML standard). */
function charsetIn(content: string): string | undefined {
  for (const m of content.matchAll(/charset/gi)) {
    const rest = /^[\t\n\f\r ]*=[\t\n\f\r ]*(?:"([^"]*)"|'([^']*)'|([^\t\n\f\r ;"']+))/.exec(
      content.slice(m.index + 7),
    );
    if (rest) return (rest[1] ?? rest[2] ?? rest[3] ?? '').trim() || undefined;
  }
  return undefined;
}

const SLASH = 0x2f;
const GREATER = 0x3e;
const EQUALS = 0x3d;

/** The first place from `at` on where a byte is none of these. */
function past(b: Uint8Array, at: number, skipped: (byte: number) => boolean): number {
  while (at < b.length && skipped(b[at]!)) at++;
  return at;
}
const isSpace = (byte: number): boolean => SPACE.has(byte);
const lowered = (b: Uint8Array, from: number, to: number): string =>
  String.fromCharCode(...b.subarray(from, to)).toLowerCase();

/**
 * One attribute from a place on, by the prescan's own rules: lower-cased name and value, and where it ends.
 */
function attribute(b: Uint8Array, from: number): { name: string; value: string; next: number } | null {
  const start = past(b, from, (c) => isSpace(c) || c === SLASH);
  if (start >= b.length || b[start] === GREATER) return null;
  // an equals sign that comes first is part of the name
  const first = b[start] === EQUALS ? start + 1 : start;
  const end = past(b, first, (c) => c !== EQUALS && !isSpace(c) && c !== SLASH && c !== GREATER);
  const name = lowered(b, start, end);
  const sign = past(b, end, isSpace);
  if (b[sign] !== EQUALS) return { name, value: '', next: sign };
  const at = past(b, sign + 1, isSpace);
  const quote = b[at];
  if (quote === 0x22 || quote === 0x27) {
    const close = past(b, at + 1, (c) => c !== quote);
    return { name, value: lowered(b, at + 1, close), next: close + 1 };
  }
  const close = past(b, at, (c) => !isSpace(c) && c !== GREATER);
  return { name, value: lowered(b, at, close), next: close };
}

/** The encoding that a meta element names, and where the element ends. */
function readMeta(b: Uint8Array, from: number): { charset?: string; next: number } {
  let isPragma = false;
  let needsPragma: boolean | undefined;
  let charset: string | undefined;
  const seen = new Set<string>();
  let at = from;
  for (let a = attribute(b, at); a; a = attribute(b, at)) {
    at = a.next;
    if (seen.has(a.name)) continue;
    seen.add(a.name);
    if (a.name === 'http-equiv') isPragma ||= a.value === 'content-type';
    else if (a.name === 'charset') {
      charset = a.value.trim();
      needsPragma = false;
    } else if (a.name === 'content' && charset === undefined) {
      charset = charsetIn(a.value);
      if (charset !== undefined) needsPragma = true;
    }
  }
  const counts = needsPragma !== undefined && (isPragma || !needsPragma);
  return { ...(counts && charset ? { charset } : {}), next: at };
}

/** Where a comment ends that begins at `at`. */
function endOfComment(b: Uint8Array, at: number): number {
  let end = at + 2;
  while (end + 2 < b.length && !(b[end] === 0x2d && b[end + 1] === 0x2d && b[end + 2] === GREATER)) end++;
  return end + 2;
}

/** Where a tag that is no meta ends, past its attributes. */
function endOfTag(b: Uint8Array, at: number): number {
  let end = past(b, at + 1, (c) => !isSpace(c) && c !== GREATER);
  for (let a = attribute(b, end); a; a = attribute(b, end)) end = a.next;
  return end;
}

/**
 * The prescan: comments are passed over, and only a meta with charset, or http-equiv content-type with
 * content, counts.
 */
export function prescan(bytes: Uint8Array): string | undefined {
  const b = bytes.subarray(0, 1024);
  for (let i = 0; i < b.length; i++) {
    if (b[i] !== 0x3c) continue;
    const isClosing = b[i + 1] === SLASH;
    const isDeclaration = b[i + 1] === 0x21;
    if (isDeclaration && b[i + 2] === 0x2d && b[i + 3] === 0x2d) i = endOfComment(b, i);
    else if (/^meta[\t\n\f\r />]/.test(lowered(b, i + 1, i + 6))) {
      const { charset, next } = readMeta(b, i + 5);
      i = next;
      const encoding = charset === undefined ? undefined : prescanned(charset);
      if (encoding !== undefined) return encoding;
    } else if (isLetter(b[isClosing ? i + 2 : i + 1])) i = endOfTag(b, i);
    else if (isDeclaration || isClosing || b[i + 1] === 0x3f) i = past(b, i, (c) => c !== GREATER);
  }
  return undefined;
}

/**
 * The label that a prescan comes to: a document that could be read so far cannot be UTF-16, and
 * x-user-defined means windows-1252 here. Nothing for what is no encoding.
 */
function prescanned(label: string): string | undefined {
  const known = encodingFor(label);
  if (!known) return undefined;
  if (known.startsWith('utf-16')) return 'utf-8';
  return label === 'x-user-defined' ? 'windows-1252' : label;
}

/** The encoding a label stands for (Encoding standard), undefined for none. */
function encodingFor(label: string): string | undefined {
  try {
    return new TextDecoder(label).encoding;
  } catch {
    return undefined;
  }
}

/** What the bytes begin with, or the header says; both stand above whatever the document itself says. */
function toldOutside(bytes: Uint8Array, contentType: string): Sniffed | undefined {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return { label: 'utf-8', from: 'bom' };
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return { label: 'utf-16be', from: 'bom' };
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return { label: 'utf-16le', from: 'bom' };
  const header = /;\s*charset\s*=\s*(?:"([^"]{1,40})"|([^";\s]{1,40}))/i.exec(`;${contentType}`);
  const named = header?.[1] ?? header?.[2];
  return named && encodingFor(named) ? { label: named.toLowerCase(), from: 'header' } : undefined;
}

/** The encoding that an XML declaration names (XML 1.0 2.8, 4.3.3). */
function declared(bytes: Uint8Array): string | undefined {
  const head = String.fromCharCode(...bytes.subarray(0, 1024));
  const found =
    /^<\?xml[\t\n\f\r ][^>]*?encoding[\t\n\f\r ]*=[\t\n\f\r ]*(?:"([^">\s]{1,40})"|'([^'>\s]{1,40})')[^>]*>/.exec(
      head,
    );
  return (found?.[1] ?? found?.[2])?.toLowerCase();
}

/** UTF-16 without a mark, by the zero beside its first characters (HTML standard; XML 1.0 F.1). */
function unmarked(b: Uint8Array): string | undefined {
  if (b[0] === 0x3c && b[1] === 0 && b[2] === 0x3f && b[3] === 0) return 'utf-16le';
  if (b[0] === 0 && b[1] === 0x3c && b[2] === 0 && b[3] === 0x3f) return 'utf-16be';
  return undefined;
}

export interface Sniffed {
  label: string;
  from: CharsetSource;
}

const XHTML = /^\s*application\/xhtml\+xml\b/i;

/**
 * The encoding of an XML document, or of a text form of one that has to be UTF-8: by its byte order mark, the
 * header, its declaration, else UTF-8 (XML 1.0 4.3.3; RFC 7303 3).
 */
function sniffXml(bytes: Uint8Array, contentType: string): Sniffed {
  const outside = toldOutside(bytes, contentType);
  if (outside) return outside;
  const label = unmarked(bytes) ?? declared(bytes);
  return label && encodingFor(label) ? { label, from: 'meta' } : { label: 'utf-8', from: 'default' };
}

/**
 * The encoding of a page. XHTML is XML, so its metas do not count; in HTML an XML declaration counts where no
 * meta does ("get an XML encoding").
 * @returns the label of the encoding and what named it
 */
export function sniffCharset(bytes: Uint8Array, contentType = ''): Sniffed {
  if (XHTML.test(contentType)) return sniffXml(bytes, contentType);
  const outside = toldOutside(bytes, contentType);
  if (outside) return outside;
  const named = unmarked(bytes) ?? prescan(bytes) ?? prescannedOrNone(declared(bytes));
  return named ? { label: named.toLowerCase(), from: 'meta' } : { label: 'windows-1252', from: 'default' };
}
const prescannedOrNone = (label: string | undefined): string | undefined =>
  label === undefined ? undefined : prescanned(label);

/** Node 20 decodes windows-1252 as Latin-1, and others not at all as the standard has them. */
const decoderFor = (label: string): TextDecoder =>
  encodingFor(label) === 'utf-8' ? new globalThis.TextDecoder() : new TextDecoder(label);

/** Decodes by the sniffed label. Broken bytes become U+FFFD. */
export function decodeText(
  bytes: Uint8Array,
  contentType = '',
): { text: string; charset: string; from: CharsetSource } {
  const { label, from } = sniffCharset(bytes, contentType);
  const decoder = decoderFor(label);
  return { text: decoder.decode(bytes), charset: decoder.encoding, from };
}

/** The same for XML. */
export function decodeXml(bytes: Uint8Array, contentType = ''): string {
  return decoderFor(sniffXml(bytes, contentType).label).decode(bytes);
}
