/**
 * Files of a site that cost time to read, whatever is in them: style sheets, pictures and sitemaps. Read here, or
 * in worker threads that are ended when one takes too long.
 */
import { imageSize } from 'image-size';
import { decodeXml } from '#core/extract/charset';
import { readCss, type CssFacts } from '#core/extract/css';
import { parseSitemap, SITEMAP_BYTES, type SitemapFacts } from '#core/extract/sitemap';
import type { AssetEvidence } from '#core/facts/evidence';

type PictureFacts = Pick<AssetEvidence, 'image' | 'imageError'>;

/** What reading a file of each kind gives. */
export interface FileFacts {
  style: CssFacts;
  /** Kind and sizes, or why there are none. */
  picture: PictureFacts;
  sitemap: SitemapFacts;
}
export type FileKind = keyof FileFacts;

/** @throws Error where it took too long, or broke the reader */
export type ReadFile = <K extends FileKind>(
  kind: K,
  body: Buffer,
  contentType?: string,
) => FileFacts[K] | Promise<FileFacts[K]>;

/** So much of a file is read: a picture tells its sizes near its start, a drawing in its first tag. */
export const READ_BYTES: Record<FileKind, number> = {
  style: 1_000_000,
  picture: 512 * 1024,
  sitemap: SITEMAP_BYTES,
};
const DRAWING_BYTES = 16 * 1024;
const MOST_SIZES = 50;

const isDrawing = (head: string): boolean =>
  /^\s*(?:<\?xml[^>]{0,500}>\s*)?(?:<!--[^>]{0,2000}-->\s*|<!doctype svg[^>]{0,500}>\s*){0,5}<svg[\s>]/i.test(
    head,
  );

/** Why a file is no picture that can be read, in words. */
function pictureFault(body: Buffer, { message }: Error): string {
  if (!body.length) return 'an empty file';
  if (/^\s*<(?:!doctype|html|head|body)/i.test(body.toString('latin1', 0, 200)))
    return 'an HTML page, and no picture';
  return /unsupported file type|offset|out of bounds/i.test(message)
    ? 'no kind of picture that browsers know'
    : `a picture that cannot be read (${message.slice(0, 120)})`;
}

function readPicture(body: Buffer): PictureFacts {
  const isSvg = isDrawing(body.toString('utf8', 0, 4096));
  try {
    // an exact-size copy: the reader looks past the end of a part of a larger buffer
    const part = new Uint8Array(body.subarray(0, isSvg ? DRAWING_BYTES : READ_BYTES.picture));
    const { type = 'unknown', width, height, images } = imageSize(part);
    const sizes = images?.slice(0, MOST_SIZES).map((i) => ({ width: i.width, height: i.height }));
    return { image: { type, width, height, ...(sizes && sizes.length > 1 ? { sizes } : {}) } };
  } catch (error) {
    // a drawing without a size of its own fits any
    if (isSvg) return { image: { type: 'svg', width: 0, height: 0 } };
    return { imageError: pictureFault(body, error as Error) };
  }
}

const READERS: { [K in FileKind]: (body: Buffer, contentType?: string) => FileFacts[K] } = {
  style: (body) => readCss(body.toString('utf8', 0, READ_BYTES.style)),
  picture: readPicture,
  sitemap: (body, contentType) => parseSitemap(decodeXml(body, contentType), contentType),
};

/** In this thread. */
export const readFileHere: ReadFile = (kind, body, contentType) => READERS[kind](body, contentType);
