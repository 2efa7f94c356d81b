/** Pictures read, cropped and written; what comes out is read back by other readers. */
import { deflateSync, gzipSync } from 'node:zlib';
import decodeIco from 'decode-ico';
import { unzipSync } from 'fflate';
import { imageSize } from 'image-size';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { cropTo, enlargement, SHARE_SIZE } from '#core/pictures/crop';
import { iconSizes } from '#core/pictures/icon-sizes';
import { USUAL_SETTINGS } from '#core/pictures/settings';
import {
  workOnPicture,
  type IconsLook,
  type PictureJob,
  type PictureLook,
  type ShareLook,
} from './picture-bytes';

const look = async <T>(job: PictureJob): Promise<T> => JSON.parse(await workOnPicture(job)) as T;
const file = async (job: PictureJob): Promise<Buffer> => Buffer.from(await workOnPicture(job), 'base64');
/** Left half red, right half blue. */
const halves = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#ff0000' } }).composite([
    {
      input: { create: { width: Math.ceil(width / 2), height, channels: 3, background: '#0000ff' } },
      left: Math.floor(width / 2),
      top: 0,
    },
  ]);
/** Thin lines on clear ground, which a small icon cannot hold. */
const DRAWING = Buffer.from(
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64">${Array.from(
    { length: 16 },
    (_, i) => `<path d="M${4 * i + 1} 2V62" stroke="#224466" stroke-width="1.6"/>`,
  ).join('')}</svg>`,
);
const { share, icon } = USUAL_SETTINGS;

describe('what a picture is', () => {
  it.each(['png', 'jpeg', 'webp', 'avif'] as const)('%s', async (format) => {
    const bytes = await halves(300, 200).removeAlpha().toFormat(format).toBuffer();
    expect(await look<PictureLook>({ do: 'look', bytes })).toEqual({
      type: format,
      width: 300,
      height: 200,
      vector: false,
      clear: false,
    });
  });
  it('a drawing is drawn large', async () => {
    expect(await look({ do: 'look', bytes: DRAWING })).toEqual({
      type: 'svg',
      width: 1600,
      height: 1600,
      vector: true,
      clear: true,
    });
  });
  it.each([
    ['a drawing', 300, Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="2000" height="1000"/>')],
    ['a small picture, which is not enlarged', 40, halves(40, 20).png().toBuffer()],
    ['a large picture', 300, halves(900, 450).png().toBuffer()],
  ])('%s keeps its proportions when it is made small', async (_, width, bytes) => {
    const small = await file({ do: 'thumb', bytes: await bytes, width: 300 });
    expect(imageSize(small)).toMatchObject({ type: 'webp', width, height: width / 2 });
  });
  it('a drawing that is but a line has a pixel at least', async () => {
    const bytes = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="4000" height="1"/>');
    expect(await look({ do: 'look', bytes })).toMatchObject({ width: 1600, height: 1 });
  });
  it('a photograph that lies on its side is turned upright', async () => {
    const bytes = await halves(300, 200).jpeg().withMetadata({ orientation: 6 }).toBuffer();
    expect(await look<PictureLook>({ do: 'look', bytes })).toMatchObject({ width: 200, height: 300 });
  });
});

/** A PNG whose head says that it is larger than it is. */
function bomb(width: number, height: number): Buffer {
  const table = Array.from({ length: 256 }, (_, n) =>
    Array.from({ length: 8 }).reduce<number>((c) => (c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1), n),
  );
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const crc = ~body.reduce((c, b) => table[(c ^ b) & 255]! ^ (c >>> 8), ~0) >>> 0;
    const [size, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    size.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc);
    return Buffer.concat([size, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(100_000))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('what is not taken, and why', () => {
  it.each<[string, () => Buffer | Promise<Buffer>, RegExp]>([
    ['nothing', () => Buffer.alloc(0), /cannot be read/],
    ['a text', () => Buffer.from('hello'), /cannot be read/],
    [
      'a PNG cut short',
      async () => (await halves(900, 900).png().toBuffer()).subarray(0, 300),
      /cannot be read/,
    ],
    [
      'a JPEG cut short',
      async () => (await halves(900, 900).jpeg().toBuffer()).subarray(0, 900),
      /cannot be read/,
    ],
    ['a bomb', () => bomb(50_000, 50_000), /more than 60 megapixels/],
    ['a bomb on its side', () => bomb(60_000_001, 1), /more than 60 megapixels/],
    ['a TIFF', () => halves(9, 9).tiff().toBuffer(), /not this file/],
    ['an SVG with a script', () => Buffer.from('<svg><script/></svg>'), /it holds a script, line 1/],
    [
      'an SVG with a file of the server',
      () => Buffer.from('<svg xmlns:xlink="x"><image xlink:href="/etc/passwd"/></svg>'),
      /refers to \/etc\/passwd/,
    ],
    ['a packed SVG', () => gzipSync(DRAWING), /not this file|cannot be read/],
    [
      'an SVG of a mile',
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="90000" height="90000"/>'),
      /megapixels|cannot be read/,
    ],
  ])('%s', async (_, make, fault) => {
    const bytes = await make();
    // looking alone reads no pixels, so it is made into something
    await expect(
      workOnPicture({ do: 'look', bytes }).then(() => workOnPicture({ do: 'share', bytes, settings: share })),
    ).rejects.toThrow(fault);
  });
});

describe('the share picture', () => {
  it.each(['jpeg', 'png'] as const)('%s of 1200 x 630, around the point that matters', async (format) => {
    const bytes = await halves(3000, 630).png().toBuffer();
    const made = await file({ do: 'share-file', bytes, settings: { ...share, format, x: 1 } });
    expect(imageSize(made)).toMatchObject({ width: 1200, height: 630 });
    const { dominant } = await sharp(made).stats();
    expect(dominant.b).toBeGreaterThan(200);
    expect(dominant.r).toBeLessThan(50);
  });
  it('its bytes grow with its quality, and are those of the file', async () => {
    const bytes = await sharp({
      create: {
        width: 1400,
        height: 800,
        channels: 3,
        noise: { type: 'gaussian', mean: 128, sigma: 40 },
        background: '#000',
      },
    })
      .png()
      .toBuffer();
    const { sizes } = await look<ShareLook>({ do: 'share', bytes, settings: share });
    const found = sizes.map((s) => s.bytes);
    expect(found).toEqual([...found].sort((a, b) => a - b));
    const made = await file({ do: 'share-file', bytes, settings: { ...share, quality: 80 } });
    expect(made.length).toBe(sizes.find((s) => s.quality === 80)!.bytes);
  });
  it('a small picture is enlarged; what is clear becomes the ground', async () => {
    const bytes = await sharp({ create: { width: 600, height: 315, channels: 4, background: '#00000000' } })
      .png()
      .toBuffer();
    const settings = { ...share, ground: '#00ff00', format: 'png' as const };
    const small = await look<PictureLook>({ do: 'look', bytes });
    expect(enlargement(cropTo(small, SHARE_SIZE, settings), SHARE_SIZE)).toBe(2);
    const { dominant } = await sharp(await file({ do: 'share-file', bytes, settings })).stats();
    expect(dominant.g).toBeGreaterThan(240);
  });
});

const icons = (bytes: Uint8Array, more: Partial<PictureJob & { do: 'icons' }> = {}): Promise<IconsLook> =>
  look({ do: 'icons', bytes, settings: icon, sizes: iconSizes(undefined), touch: 180, inPlace: [], ...more });

describe('icons', () => {
  it('each in its size, with clear ground; the touch icon has none', async () => {
    const made = await icons(DRAWING);
    for (const { size, png } of made.icons)
      expect(await sharp(Buffer.from(png, 'base64')).metadata()).toMatchObject({
        width: size,
        height: size,
        hasAlpha: true,
      });
    const touch = sharp(Buffer.from(made.touch.png, 'base64'));
    expect((await touch.stats()).isOpaque).toBe(true);
  });
  it('fine lines are soft in 32 px, a plain shape is not, one colour has no edges', async () => {
    const fine = await icons(DRAWING);
    expect(fine.sharpness).toBeLessThan(0.5);
    const plain = await icons(await halves(512, 512).png().toBuffer(), {
      settings: { ...icon, trim: false },
    });
    expect(plain.sharpness).toBeGreaterThan(0.5);
    expect(fine.sharpness!).toBeLessThan(plain.sharpness!);
    const flat = await sharp({ create: { width: 64, height: 64, channels: 3, background: '#123456' } })
      .png()
      .toBuffer();
    expect((await icons(flat)).sharpness).toBeNull();
  });
  it('what is in place is measured against its own largest, or against the same drawing, else not', async () => {
    const at = (size: number, drawing: Buffer): Promise<Buffer> =>
      sharp(drawing).resize(size, size).png().toBuffer();
    const small = { url: 'https://a.example/32.png', bytes: await at(32, DRAWING) };
    const large = { url: 'https://a.example/128.png', bytes: await at(128, DRAWING) };
    const bad = { url: 'https://a.example/bad.png', bytes: Buffer.from('no picture') };
    const own = (await icons(DRAWING, { inPlace: [small, large, bad] })).inPlace;
    expect(own.against).toBe('own');
    expect(own.icons.map((i) => i.size)).toEqual([128, 32]);
    expect(own.icons[0]!.sharpness).toBe(1);
    expect(own.icons[1]!.sharpness!).toBeLessThan(0.9);
    expect(own.faults).toEqual([{ url: bad.url, fault: expect.stringMatching(/cannot be read/) as string }]);
    const alike = (await icons(DRAWING, { inPlace: [small] })).inPlace;
    expect(alike).toMatchObject({ against: 'new', icons: [{ size: 32 }] });
    expect(alike.icons[0]!.sharpness!).toBeLessThan(0.9);
    const other = {
      url: 'https://a.example/other.png',
      bytes: await at(32, await halves(64, 64).png().toBuffer()),
    };
    expect((await icons(DRAWING, { inPlace: [other] })).inPlace).toEqual({
      icons: [{ url: other.url, size: 32, vector: false, sharpness: null }],
      faults: [],
    });
  });
  it('the maskable one moves inwards until all lies in the safe zone', async () => {
    const disc = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><circle cx="5" cy="5" r="5" fill="#204060"/></svg>',
    );
    const { maskable } = await icons(disc);
    // 0.1 touches the circle
    expect([0.1, 0.15]).toContain(maskable.padding);
    expect(maskable.outside).toBeLessThan(0.01);
    const full = await halves(64, 64).png().toBuffer();
    expect((await icons(full, { settings: { ...icon, padding: 0.25 } })).maskable.padding).toBe(0.25);
  });
  it('the picture’s own empty edge is cut off, or stays', async () => {
    const bytes = await sharp({ create: { width: 100, height: 100, channels: 4, background: '#00000000' } })
      .composite([{ input: { create: { width: 20, height: 20, channels: 4, background: '#ff0000' } } }])
      .png()
      .toBuffer();
    const red = async (trim: boolean): Promise<number> => {
      const { icons: made } = await icons(bytes, { settings: { ...icon, trim } });
      const { data } = await sharp(Buffer.from(made[0]!.png, 'base64'))
        .raw()
        .toBuffer({ resolveWithObject: true });
      return data.filter((v, i) => i % 4 === 3 && v > 128).length;
    };
    expect(await red(true)).toBe(16 * 16);
    expect(await red(false)).toBeLessThan(40);
  });
  it('sides that differ are said', async () => {
    expect(
      (await icons(await halves(300, 200).png().toBuffer(), { settings: { ...icon, trim: false } })).square,
    ).toBe(false);
  });
});

describe('the archive', () => {
  const kit = async (more: Partial<PictureJob & { do: 'kit' }>): Promise<Record<string, Uint8Array>> =>
    unzipSync(
      await file({
        do: 'kit',
        settings: USUAL_SETTINGS,
        sizes: iconSizes(undefined),
        plan: { base: 'https://a.example/', folder: '/', name: 'A' },
        at: '2026-11-27T12:00:00.000Z',
        ...more,
      }),
    );
  it('has every file that its tags and its manifest name, and each is what it says', async () => {
    const files = await kit({
      share: await halves(2000, 1000).png().toBuffer(),
      icon: DRAWING,
      settings: { ...USUAL_SETTINGS, folder: '/pictures/' },
      plan: { base: 'https://a.example/', folder: '/pictures/', name: 'A' },
    });
    const tags = Buffer.from(files['tags.html']!).toString();
    const manifest = JSON.parse(Buffer.from(files['pictures/site.webmanifest']!).toString()) as {
      icons: { src: string; sizes: string }[];
    };
    const named = [...tags.matchAll(/(?:href|content)="(?:https:\/\/a\.example)?\/([^"]+)"/g)].map(
      (m) => m[1]!,
    );
    expect(named.length).toBeGreaterThan(5);
    for (const name of [...named, ...manifest.icons.map((i) => i.src.slice(1))])
      expect(Object.keys(files)).toContain(name);
    for (const { src, sizes } of manifest.icons) {
      const { width, height } = imageSize(files[src.slice(1)]!);
      expect(`${width}x${height}`).toBe(sizes);
    }
    expect(decodeIco(files['pictures/favicon.ico']!).map((i) => i.width)).toEqual([16, 32, 48]);
    expect(Buffer.from(files['pictures/icon.svg']!).equals(DRAWING)).toBe(true);
  });
  it('has what there is and no more', async () => {
    const files = await kit({ share: await halves(2000, 1000).png().toBuffer() });
    expect(Object.keys(files).map((n) => n.replace(/-[0-9a-f]{8}/, '-…'))).toEqual([
      'share-….jpg',
      'tags.html',
    ]);
  });
  it('is the same for the same pictures', async () => {
    const job: PictureJob = {
      do: 'kit',
      icon: DRAWING,
      settings: USUAL_SETTINGS,
      sizes: [16],
      plan: { base: 'https://a.example/', folder: '/', name: 'A' },
      at: '2026-11-27T12:00:00.000Z',
    };
    expect(await workOnPicture(job)).toBe(await workOnPicture(job));
  });
});
