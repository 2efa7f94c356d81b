/** Icon files (ICO) that hold PNGs, as all browsers read them since Windows Vista (from memory). */

export interface IcoEntry {
  /** Side in pixels, 1 to 256. */
  size: number;
  png: Uint8Array;
}

const HEAD = 6;
const ENTRY = 16;
const BITS = 32;
const PNG_MARK = [0x89, 0x50, 0x4e, 0x47];

/** @throws RangeError for a size that the format cannot say */
export function writeIco(entries: readonly IcoEntry[]): Uint8Array {
  const head = HEAD + ENTRY * entries.length;
  const out = new Uint8Array(head + entries.reduce((sum, e) => sum + e.png.length, 0));
  const view = new DataView(out.buffer);
  view.setUint16(2, 1, true);
  view.setUint16(4, entries.length, true);
  let at = head;
  entries.forEach(({ size, png }, i) => {
    if (!Number.isInteger(size) || size < 1 || size > 256) throw new RangeError(`no ICO has ${size} pixels`);
    const entry = HEAD + ENTRY * i;
    // 256 is written as nought
    out[entry] = size % 256;
    out[entry + 1] = size % 256;
    view.setUint16(entry + 4, 1, true);
    view.setUint16(entry + 6, BITS, true);
    view.setUint32(entry + 8, png.length, true);
    view.setUint32(entry + 12, at, true);
    out.set(png, at);
    at += png.length;
  });
  return out;
}

/** @returns the PNGs of an icon file; those that are bitmaps are left out, and none for what is no icon file */
export function readIco(bytes: Uint8Array): IcoEntry[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < HEAD || view.getUint16(0, true) !== 0 || view.getUint16(2, true) !== 1) return [];
  const out: IcoEntry[] = [];
  for (let i = 0; i < view.getUint16(4, true); i++) {
    const entry = HEAD + ENTRY * i;
    if (entry + ENTRY > bytes.length) break;
    const start = view.getUint32(entry + 12, true);
    const png = bytes.subarray(start, start + view.getUint32(entry + 8, true));
    if (PNG_MARK.every((b, k) => png[k] === b)) out.push({ size: bytes[entry]! || 256, png });
  }
  return out;
}
