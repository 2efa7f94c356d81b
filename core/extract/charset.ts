/**
 * Which encoding a document is in: BOM, then the header, then a prescan of the first 1024 bytes (HTML
 * standard, "determining the character encoding" and "prescan a byte stream").
 */

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

/**
 * One attribute from a place on, by the prescan's own rules: lower-cased name and value, and where it ends.
 */
function attribute(b: Uint8Array, from: number): { name: string; value: string; next: number } | null {
  let i = from;
  while (i < b.length && (SPACE.has(b[i]!) || b[i] === 0x2f)) i++;
  if (i >= b.length || b[i] === 0x3e) return null;
  let name = '',
    value = '';
  const char = (at: number): string => String.fromCharCode(b[at]!).toLowerCase();
  while (i < b.length && !(b[i] === 0x3d && name) && !SPACE.has(b[i]!) && b[i] !== 0x2f && b[i] !== 0x3e)
    name += char(i++);
  let at = i;
  while (at < b.length && SPACE.has(b[at]!)) at++;
  if (b[at] !== 0x3d) return { name, value, next: at };
  at++;
  while (at < b.length && SPACE.has(b[at]!)) at++;
  if (b[at] === 0x22 || b[at] === 0x27) {
    const quote = b[at++];
    while (at < b.length && b[at] !== quote) value += char(at++);
    return { name, value, next: at + 1 };
  }
  while (at < b.length && !SPACE.has(b[at]!) && b[at] !== 0x3e) value += char(at++);
  return { name, value, next: at };
}

/**
 * The prescan: comments are passed over, and only a meta with charset, or http-equiv content-type with
 * content, counts.
 */
export function prescan(bytes: Uint8Array): string | undefined {
  const b = bytes.subarray(0, 1024);
  for (let i = 0; i < b.length; i++) {
    if (b[i] !== 0x3c) continue;
    if (b[i + 1] === 0x21 && b[i + 2] === 0x2d && b[i + 3] === 0x2d) {
      let end = i + 2;
      while (end + 2 < b.length && !(b[end] === 0x2d && b[end + 1] === 0x2d && b[end + 2] === 0x3e)) end++;
      i = end + 2;
      continue;
    }
    const closing = b[i + 1] === 0x2f;
    const word = String.fromCharCode(...b.subarray(i + 1, i + 6)).toLowerCase();
    if (/^meta[\t\n\f\r />]/.test(word)) {
      let got = false,
        needPragma: boolean | undefined,
        charset: string | undefined;
      const seen = new Set<string>();
      let at = i + 5;
      for (let a = attribute(b, at); a; a = attribute(b, at)) {
        at = a.next;
        if (seen.has(a.name)) continue;
        seen.add(a.name);
        if (a.name === 'http-equiv' && a.value === 'content-type') got = true;
        else if (a.name === 'content' && charset === undefined) {
          charset = charsetIn(a.value);
          if (charset !== undefined) needPragma = true;
        } else if (a.name === 'charset') {
          charset = a.value.trim();
          needPragma = false;
        }
      }
      i = at;
      if (needPragma === undefined || (needPragma && !got) || !charset) continue;
      const known = encodingFor(charset);
      if (!known) continue;
      // a document that could be read so far cannot be UTF-16, and x-user-defined means windows-1252 here
      return /^utf-16/.test(known) ? 'utf-8' : charset === 'x-user-defined' ? 'windows-1252' : charset;
    } else if (isLetter(b[closing ? i + 2 : i + 1])) {
      let at = i + 1;
      while (at < b.length && !SPACE.has(b[at]!) && b[at] !== 0x3e) at++;
      for (let a = attribute(b, at); a; a = attribute(b, at)) at = a.next;
      i = at;
    } else if (b[i + 1] === 0x21 || closing || b[i + 1] === 0x3f) {
      while (i < b.length && b[i] !== 0x3e) i++;
    }
  }
  return undefined;
}

/** The encoding a label stands for (Encoding standard), undefined for none. */
function encodingFor(label: string): string | undefined {
  if (label.toLowerCase() === 'x-user-defined') return 'x-user-defined';
  try {
    return new TextDecoder(label).encoding;
  } catch {
    return undefined;
  }
}

/** @returns the label of the encoding and what named it. */
export function sniffCharset(bytes: Uint8Array, contentType = ''): { label: string; from: CharsetSource } {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return { label: 'utf-8', from: 'bom' };
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return { label: 'utf-16be', from: 'bom' };
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return { label: 'utf-16le', from: 'bom' };
  const header = /;\s*charset\s*=\s*(?:"([^"]{1,40})"|([^";\s]{1,40}))/i.exec(`;${contentType}`);
  const named = header?.[1] ?? header?.[2];
  if (named && encodingFor(named)) return { label: named.toLowerCase(), from: 'header' };
  const meta = prescan(bytes);
  if (meta) return { label: meta.toLowerCase(), from: 'meta' };
  return { label: 'windows-1252', from: 'default' };
}

/** Decodes by the sniffed label. Broken bytes become U+FFFD. */
export function decodeText(
  bytes: Uint8Array,
  contentType = '',
): { text: string; charset: string; from: CharsetSource } {
  const { label, from } = sniffCharset(bytes, contentType);
  const decoder = new TextDecoder(label === 'x-user-defined' ? 'windows-1252' : label);
  return { text: decoder.decode(bytes), charset: decoder.encoding, from };
}
