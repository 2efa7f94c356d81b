/** Plain pictures made in code: PNG (RFC 2083) of one colour with a stripe, and an ICO that holds PNGs. */
import zlib from 'node:zlib';

const CRC = Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});
function crc(bytes: Buffer): number {
  let c = 0xffffffff;
  for (const b of bytes) c = CRC[(c ^ b) & 255]! ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}

function chunk(type: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const out = Buffer.alloc(body.length + 8);
  out.writeUInt32BE(data.length, 0);
  body.copy(out, 4);
  out.writeUInt32BE(crc(body), body.length + 4);
  return out;
}

/** A PNG of a colour "#rrggbb", with a lighter band across the middle. */
export function png(width: number, height: number, colour: string): Buffer {
  const rgb = [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16));
  const light = rgb.map((v) => Math.min(255, v + 60));
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header[8] = 8;
  header[9] = 2;
  const row = (c: number[]) => {
    const r = Buffer.alloc(1 + width * 3);
    for (let x = 0; x < width; x++) r.set(c, 1 + x * 3);
    return r;
  };
  const dark = row(rgb),
    band = row(light);
  const rows = Array.from({ length: height }, (_, y) => (y > height * 0.4 && y < height * 0.6 ? band : dark));
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', zlib.deflateSync(Buffer.concat(rows))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** A PNG that hardly packs: as heavy as a careless photograph. The same bytes each time. */
export function noisyPng(width: number, height: number): Buffer {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header[8] = 8;
  header[9] = 2;
  const raw = Buffer.alloc((1 + width * 3) * height);
  let x = 12345;
  for (let i = 0; i < raw.length; i++) {
    x = (Math.imul(x, 1103515245) + 12345) >>> 0;
    raw[i] = i % (1 + width * 3) ? x >>> 16 : 0;
  }
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', zlib.deflateSync(raw, { level: 1 })),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** An ICO with one PNG for each size. */
export function ico(sizes: number[], colour: string): Buffer {
  const images = sizes.map((s) => png(s, s, colour));
  const head = Buffer.alloc(6 + 16 * sizes.length);
  head.writeUInt16LE(1, 2);
  head.writeUInt16LE(sizes.length, 4);
  let at = head.length;
  images.forEach((image, i) => {
    const o = 6 + 16 * i;
    head[o] = sizes[i]! % 256;
    head[o + 1] = sizes[i]! % 256;
    head.writeUInt16LE(1, o + 4);
    head.writeUInt16LE(24, o + 6);
    head.writeUInt32LE(image.length, o + 8);
    head.writeUInt32LE(at, o + 12);
    at += image.length;
  });
  return Buffer.concat([head, ...images]);
}
