/**
 * Reads, crops and writes pictures: what the pictures process does. Nothing is taken that is larger than it says,
 * takes too long, or is no picture; a drawing is looked through before it is drawn.
 */
import { createHash } from 'node:crypto';
import { zipSync, type Zippable } from 'fflate';
import sharp, { type Sharp } from 'sharp';
import { readIco, writeIco } from '#core/formats/ico';
import { cropTo, SHARE_SIZE, type Size } from '#core/pictures/crop';
import { pictureDifference, type Raster } from '#core/pictures/difference';
import { ICO_SIZES, TOUCH_SIZE } from '#core/pictures/icon-sizes';
import { iconName, KIT_NAMES, kitManifest, kitTags, shareName, type KitPlan } from '#core/pictures/kit';
import { DENSE, HARDLY_OUTSIDE, TABS } from '#core/pictures/measures';
import {
  contrast,
  drawnPart,
  isAlike,
  mainColour,
  outsideSafeZone,
  sharpness,
  type Pixels,
} from '#core/pictures/pixels';
import {
  MOST_PIXELS,
  QUALITIES,
  type IconSettings,
  type PictureSettings,
  type ShareCrop,
  type ShareEncoding,
} from '#core/pictures/settings';
import { svgFault } from '#core/pictures/svg';

/** Each picture is asked for once, so none is remembered. */
sharp.cache(false);
sharp.concurrency(1);

export type PictureJob =
  | {
      do: 'difference';
      first: Uint8Array;
      second: Uint8Array;
      takes: [Uint8Array, Uint8Array][];
      /** Whether the two are to be laid over each other too. */
      drawn: boolean;
    }
  | { do: 'look'; bytes: Uint8Array }
  | { do: 'thumb'; bytes: Uint8Array; width: number }
  | { do: 'share'; bytes: Uint8Array; settings: ShareCrop }
  | { do: 'share-file'; bytes: Uint8Array; settings: ShareEncoding }
  | {
      do: 'icons';
      bytes: Uint8Array;
      settings: IconSettings;
      sizes: number[];
      touch: number;
      inPlace: { url: string; bytes: Uint8Array }[];
    }
  | {
      do: 'kit';
      share?: Uint8Array;
      icon?: Uint8Array;
      settings: PictureSettings;
      sizes: number[];
      plan: Omit<KitPlan, 'share' | 'vector' | 'hasIcon'>;
      /** ISO 8601: when the files were made, for the archive. */
      at: string;
    };

/** What a picture is. */
export interface PictureLook extends Size {
  type: string;
  vector: boolean;
  /** Something may shine through. */
  clear: boolean;
}
/** How a share picture would turn out. */
export interface ShareLook {
  sizes: { quality: number; bytes: number }[];
}
/** One picture, as base64. */
interface IconPicture {
  size: number;
  png: string;
  bytes: number;
}
/** The icons that stand there now. */
interface InPlaceLook {
  /** Without an end: a drawing. */
  icons: { url: string; size: number; vector: boolean; sharpness: number | null }[];
  /** What the smaller ones are measured against: their own largest, or the new one where it is the same drawing. */
  against?: 'own' | 'new';
  faults: { url: string; fault: string }[];
}
export interface IconsLook {
  icons: IconPicture[];
  touch: IconPicture;
  maskable: IconPicture & { padding: number; outside: number };
  /** Share of the edges that a 32 px icon keeps on a dense screen; `null` where it has none. */
  sharpness: number | null;
  inPlace: InPlaceLook;
  /** Sides that differ are filled up with nothing. */
  square: boolean;
  colour?: string;
  contrast?: { light: number; dark: number };
}

const SECONDS = 15;
/** Drawings are drawn once, this large. */
const DRAWN_SIDE = 1600;
const TYPES = new Set(['jpeg', 'png', 'webp', 'svg', 'heif', 'gif']);
const CLEAR = { r: 0, g: 0, b: 0, alpha: 0 };
const PIXELS_IN_WORDS = `${MOST_PIXELS / 1e6} megapixels`;

/** Why a picture is not taken, as a sentence for people. */
class PictureFault extends Error {}

const options = { limitInputPixels: MOST_PIXELS, failOn: 'error' as const };
const open = (bytes: Uint8Array, more: { density?: number } = {}): Sharp =>
  sharp(bytes, { ...options, ...more }).timeout({ seconds: SECONDS });

const isText = (bytes: Uint8Array): boolean => {
  const head = Buffer.from(bytes.buffer, bytes.byteOffset, Math.min(bytes.length, 4096)).toString('utf8');
  return /^\uFEFF?\s*</.test(head);
};

function inWords(error: unknown): string {
  if (error instanceof PictureFault) return error.message;
  const { message, name } = error as Error;
  // what reads pictures throws plain errors
  if (name !== 'Error') return `Armband itself failed at this picture (${message.slice(0, 120)}).`;
  if (/pixel limit/i.test(message))
    return `The picture has more than ${PIXELS_IN_WORDS}. Make it smaller first.`;
  if (/timeout/i.test(message))
    return `The picture took longer than ${SECONDS} seconds. Save it anew, or make it smaller.`;
  return `The picture cannot be read (${message.split('\n')[0]!.slice(0, 120)}). Save it anew as PNG, JPEG, WebP, AVIF or SVG.`;
}

/** @throws PictureFault */
async function read(
  bytes: Uint8Array,
): Promise<{ look: PictureLook; picture: () => Sharp | Promise<Sharp> }> {
  const isDrawing = isText(bytes);
  if (isDrawing) {
    const fault = svgFault(Buffer.from(bytes).toString('utf8'));
    if (fault) throw new PictureFault(`The SVG is not taken: ${fault}. Export it as a plain drawing.`);
  }
  const meta = await open(bytes).metadata();
  const { format, autoOrient } = meta;
  // a drawing that is packed, or in letters that were not read as text, was not looked through
  const isHidden = format === 'svg' && !isDrawing;
  if (isHidden || !TYPES.has(format ?? '') || (format === 'heif' && meta.compression !== 'av1'))
    throw new PictureFault('PNG, JPEG, WebP, AVIF and SVG are taken, not this file.');
  const { width, height } = autoOrient;
  if (!width || !height) throw new PictureFault('The picture has no size.');
  if (width * height > MOST_PIXELS) throw new Error('pixel limit');
  if (!isDrawing)
    return {
      look: {
        type: format === 'heif' ? 'avif' : format,
        width,
        height,
        vector: false,
        clear: meta.hasAlpha,
      },
      picture: () => open(bytes).autoOrient(),
    };
  const times = DRAWN_SIDE / Math.max(width, height);
  const side = (length: number): number => Math.max(1, Math.round(length * times));
  const drawn = { width: side(width), height: side(height) };
  // what is less than a pixel high is not drawn at all
  const density = 72 * Math.max(times, 1 / Math.min(width, height));
  return {
    look: { type: 'svg', ...drawn, vector: true, clear: true },
    // as pixels, since a second change of size would take the place of this one
    picture: async () =>
      open(
        await open(bytes, { density: Math.min(100_000, Math.max(1, density)) })
          .resize({ ...drawn, fit: 'fill' })
          .png({ compressionLevel: 1 })
          .toBuffer(),
      ),
  };
}

async function pixelsOf(picture: Sharp): Promise<Pixels> {
  const { data, info } = await picture.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { rgba: data, width: info.width, height: info.height };
}

/** What a picture is; a drawing that cannot be drawn is none. */
async function inspectPicture(bytes: Uint8Array): Promise<PictureLook> {
  const { look, picture } = await read(bytes);
  if (look.vector) await picture();
  return look;
}

/* The share picture */

async function cropped(bytes: Uint8Array, settings: ShareCrop): Promise<Sharp> {
  const { look, picture } = await read(bytes);
  const { data, info } = await (
    await picture()
  )
    .extract(cropTo(look, SHARE_SIZE, settings))
    .resize({ ...SHARE_SIZE, fit: 'fill' })
    .flatten({ background: settings.ground })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  return sharp(data, { raw: { width, height, channels } });
}

const encoded = (
  raw: Sharp,
  { format, quality }: Pick<ShareEncoding, 'format' | 'quality'>,
): Promise<Buffer> =>
  format === 'png'
    ? raw.clone().png({ compressionLevel: 9 }).toBuffer()
    : // letters keep their edges only where colour is not thinned out
      raw.clone().jpeg({ quality, chromaSubsampling: '4:4:4' }).toBuffer();

async function shareLook(bytes: Uint8Array, settings: ShareCrop): Promise<ShareLook> {
  const raw = await cropped(bytes, settings);
  const qualities = settings.format === 'png' ? [100] : QUALITIES;
  const sizes: ShareLook['sizes'] = [];
  for (const quality of qualities)
    sizes.push({ quality, bytes: (await encoded(raw, { ...settings, quality })).length });
  return { sizes };
}

const shareFile = async (bytes: Uint8Array, settings: ShareEncoding): Promise<Buffer> =>
  encoded(await cropped(bytes, settings), settings);

/* Icons */

/** More than the largest icon needs; less to go through for each. */
const SOURCE_SIDE = 1024;

const fromPixels = ({ rgba, width, height }: Pixels): Sharp =>
  sharp(rgba, { raw: { width, height, channels: 4 } });

/** The picture that all icons are made from, without its empty edge. */
async function iconSource(bytes: Uint8Array, trim: boolean): Promise<{ source: Pixels; look: PictureLook }> {
  const { look, picture } = await read(bytes);
  const upright = await pixelsOf((await picture()).toColourspace('srgb'));
  // a picture of one colour has nothing but an edge
  const part = trim ? drawnPart(upright) : undefined;
  const kept = part ? await pixelsOf(fromPixels(upright).extract(part)) : upright;
  const source =
    Math.max(kept.width, kept.height) > SOURCE_SIDE
      ? await pixelsOf(fromPixels(kept).resize(SOURCE_SIDE, SOURCE_SIDE, { fit: 'inside' }))
      : kept;
  return { source, look };
}

type Edge = Pick<IconSettings, 'padding' | 'ground'>;

async function iconPixels(source: Pixels, size: number, { padding, ground }: Edge): Promise<Pixels> {
  const inner = Math.max(1, Math.round(size * (1 - 2 * padding)));
  const before = Math.floor((size - inner) / 2);
  const after = size - inner - before;
  const drawn = await pixelsOf(
    fromPixels(source)
      .resize(inner, inner, { fit: 'contain', background: CLEAR })
      .extend({ top: before, left: before, bottom: after, right: after, background: CLEAR }),
  );
  return ground ? pixelsOf(fromPixels(drawn).flatten({ background: ground })) : drawn;
}

const pngOf = (pixels: Pixels): Promise<Buffer> => fromPixels(pixels).png({ compressionLevel: 9 }).toBuffer();
const iconPng = async (source: Pixels, size: number, edge: Edge): Promise<Buffer> =>
  pngOf(await iconPixels(source, size, edge));

const iconPicture = (size: number, png: Buffer): IconPicture => ({
  size,
  png: png.toString('base64'),
  bytes: png.length,
});

/** The colour at the corners, where they are solid. */
function cornerColour({ rgba, width, height }: Pixels): string | undefined {
  const corners = [0, width - 1, (height - 1) * width, height * width - 1].map((p) => p * 4);
  if (corners.some((at) => rgba[at + 3]! < 255)) return undefined;
  const hex = corners.map((at) => Buffer.from(rgba.subarray(at, at + 3)).toString('hex'));
  return hex.every((h) => h === hex[0]) ? `#${hex[0]}` : undefined;
}

const PADDINGS = [0, 0.05, 0.1, 0.15, 0.2, 0.25];

const MASKABLE = 512;
/** Where it is measured: fine enough. */
const MEASURED = 256;

async function maskableIcon(
  source: Pixels,
  { padding, ground }: IconSettings,
): Promise<IconsLook['maskable']> {
  const behind = ground || cornerColour(source) || '#ffffff';
  let edge = { padding, ground: behind };
  let outside = 0;
  for (const more of [padding, ...PADDINGS.filter((p) => p > padding)]) {
    edge = { padding: more, ground: behind };
    outside = outsideSafeZone(await iconPixels(source, MEASURED, edge));
    if (outside <= HARDLY_OUTSIDE) break;
  }
  return { ...iconPicture(MASKABLE, await iconPng(source, MASKABLE, edge)), padding: edge.padding, outside };
}

/** As a screen enlarges, or shrinks, an icon. */
const enlarged = (icon: Pixels, side: number): Promise<Pixels> =>
  pixelsOf(fromPixels(icon).resize(side, side, { fit: 'contain', background: CLEAR, kernel: 'cubic' }));

/** What a browser would take of a file for a dense screen: the smallest that is large enough, else the largest. */
function bestOf(file: Buffer): Uint8Array {
  const [best] = readIco(file).sort((a, b) => {
    const isShort = Number(a.size < DENSE) - Number(b.size < DENSE);
    return isShort || (a.size < DENSE ? b.size - a.size : a.size - b.size);
  });
  return best?.png ?? file;
}

async function inPlaceLook(
  files: readonly { url: string; bytes: Uint8Array }[],
  drawn: Pixels,
): Promise<InPlaceLook> {
  const faults: InPlaceLook['faults'] = [];
  const readOne = async ({ url, bytes }: { url: string; bytes: Uint8Array }) => {
    try {
      const { look, picture } = await read(bestOf(Buffer.from(bytes)));
      const { width: size, vector } = look;
      return [{ url, size, vector, dense: await enlarged(await pixelsOf(await picture()), DENSE) }];
    } catch (error) {
      faults.push({ url, fault: inWords(error) });
      return [];
    }
  };
  const found = [];
  for (const file of files) found.push(...(await readOne(file)));
  found.sort((a, b) => b.size - a.size);
  const [largest] = found;
  const isOwn = largest !== undefined && largest.size >= DENSE;
  const isNew = largest !== undefined && !isOwn && isAlike(largest.dense, drawn);
  const measure = isOwn ? largest.dense : isNew ? drawn : undefined;
  return {
    icons: found.map(({ dense, ...icon }) => ({
      ...icon,
      sharpness: measure ? sharpness(dense, measure) : null,
    })),
    ...(isOwn ? { against: 'own' as const } : isNew ? { against: 'new' as const } : {}),
    faults,
  };
}

async function iconsLook({
  bytes,
  settings,
  sizes,
  touch,
  inPlace,
}: PictureJob & { do: 'icons' }): Promise<IconsLook> {
  const { source } = await iconSource(bytes, settings.trim);
  const icons: IconPicture[] = [];
  for (const size of sizes) icons.push(iconPicture(size, await iconPng(source, size, settings)));
  const small = await iconPixels(source, DENSE / 2, settings);
  const drawn = await iconPixels(source, DENSE, settings);
  const colour = mainColour(drawn);
  return {
    icons,
    touch: iconPicture(touch, await touchIcon(source, touch, settings)),
    maskable: await maskableIcon(source, settings),
    sharpness: sharpness(await enlarged(small, DENSE), drawn),
    inPlace: await inPlaceLook(inPlace, drawn),
    // what was cut off may leave a pixel more on one side
    square: Math.abs(source.width - source.height) <= 1,
    ...(colour
      ? { colour, contrast: { light: contrast(colour, TABS.light), dark: contrast(colour, TABS.dark) } }
      : {}),
  };
}

/** Phones paint what is clear black, so nothing is. */
const touchIcon = (source: Pixels, size: number, { padding, ground }: IconSettings): Promise<Buffer> =>
  iconPng(source, size, { padding, ground: ground || '#ffffff' });

/* The kit */

async function iconFiles(
  icon: Uint8Array,
  { settings, sizes, plan }: PictureJob & { do: 'kit' },
): Promise<Zippable> {
  const { source, look } = await iconSource(icon, settings.icon.trim);
  const of = (size: number): Promise<Buffer> => iconPng(source, size, settings.icon);
  const files: Zippable = {};
  for (const size of sizes) files[iconName(size)] = await of(size);
  const parts = [];
  for (const size of ICO_SIZES) parts.push({ size, png: await of(size) });
  files[KIT_NAMES.ico] = writeIco(parts);
  files[KIT_NAMES.touch] = await touchIcon(source, plan.icons?.touch ?? TOUCH_SIZE, settings.icon);
  files[KIT_NAMES.maskable] = Buffer.from((await maskableIcon(source, settings.icon)).png, 'base64');
  if (look.vector) files[KIT_NAMES.vector] = icon;
  return files;
}

async function kit(job: PictureJob & { do: 'kit' }): Promise<Buffer> {
  const { settings, share, icon } = job;
  const files: Zippable = icon ? await iconFiles(icon, job) : {};
  const plan: KitPlan = { ...job.plan, hasIcon: icon !== undefined, vector: KIT_NAMES.vector in files };
  if (share) {
    const bytes = await shareFile(share, settings.share);
    const file = shareName(createHash('sha256').update(bytes).digest('hex'), settings.share.format);
    files[file] = bytes;
    plan.share = { file, alt: settings.share.alt || plan.name };
  }
  if (icon) files[KIT_NAMES.manifest] = Buffer.from(kitManifest(plan));
  const folder = settings.folder.slice(1);
  const inFolder: Zippable = Object.fromEntries(
    Object.entries(files).map(([name, bytes]) => [`${folder}${name}`, bytes]),
  );
  inFolder[KIT_NAMES.tags] = Buffer.from(kitTags(plan));
  // pictures are packed already
  return Buffer.from(zipSync(inFolder, { level: 0, mtime: new Date(job.at) }));
}

async function thumb(bytes: Uint8Array, width: number): Promise<Buffer> {
  const [icon] = readIco(Buffer.from(bytes)).sort((a, b) => b.size - a.size);
  const { picture } = await read(icon ? Buffer.from(icon.png) : bytes);
  return (await picture()).resize({ width, withoutEnlargement: true }).webp({ quality: 82 }).toBuffer();
}

async function rasterOf(bytes: Uint8Array): Promise<Raster> {
  const { picture } = await read(bytes);
  const { data, info } = await (await picture()).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data };
}

/** How far two pictures of a page differ. */
async function difference({ first, second, takes, drawn }: PictureJob & { do: 'difference' }) {
  const rasters: [Raster, Raster][] = [];
  for (const [a, b] of takes) rasters.push([await rasterOf(a), await rasterOf(b)]);
  const { share, masked, picture } = pictureDifference(
    await rasterOf(first),
    await rasterOf(second),
    rasters,
  );
  if (!drawn) return { share, masked };
  const { width, height, data } = picture;
  const file = await sharp(data, { raw: { width, height, channels: 4 } })
    .webp({ quality: 80 })
    .toBuffer();
  return { share, masked, picture: base64(file) };
}

const base64 = (bytes: Buffer): string => bytes.toString('base64');

async function work(job: PictureJob): Promise<string> {
  switch (job.do) {
    case 'look':
      return JSON.stringify(await inspectPicture(job.bytes));
    case 'difference':
      return JSON.stringify(await difference(job));
    case 'thumb':
      return base64(await thumb(job.bytes, job.width));
    case 'share':
      return JSON.stringify(await shareLook(job.bytes, job.settings));
    case 'share-file':
      return base64(await shareFile(job.bytes, job.settings));
    case 'icons':
      return JSON.stringify(await iconsLook(job));
    case 'kit':
      return base64(await kit(job));
  }
}

/** @returns JSON, or a file as base64; @throws Error with a sentence for people */
export const workOnPicture = (job: PictureJob): Promise<string> =>
  work(job).catch((error: unknown) => {
    throw new Error(inWords(error));
  });
