/** The files of a built site, as they were found in a folder or an archive. */
import { createHash } from 'node:crypto';
import { unzipSync } from 'fflate';
import { isLitter } from '#core/compare/build';
import { faceOf, type Ground } from '#core/compare/sites/page-face';
import type { BuiltFile, SiteBuild } from '#core/facts/environment';
import { extractHere } from './extractor';

export const BUILD_LIMITS = { files: 20_000, bytes: 500 * 1024 * 1024, htmlBytes: 5 * 1024 * 1024 } as const;
const LONGEST_PATH = 1000;

export interface NamedFile {
  path: string;
  bytes: Uint8Array;
}

/** Whether a name stays within its folder, whatever its letters. */
function isWithin(path: string): boolean {
  return (
    path.length > 0 &&
    path.length <= LONGEST_PATH &&
    !/^[/\\]|[\\\0]|^[A-Za-z]:/.test(path) &&
    !path.split('/').includes('..')
  );
}

/** A folder that holds all the rest is the build itself. */
function withoutFrame(files: readonly NamedFile[]): NamedFile[] {
  const [first = ''] = files.map((f) => f.path.slice(0, f.path.indexOf('/') + 1));
  return first && files.every((f) => f.path.startsWith(first))
    ? files.map((f) => ({ ...f, path: f.path.slice(first.length) }))
    : [...files];
}

/**
 * Names, sizes and digests of a build, with the words of its pages.
 * @throws RangeError for what is no build, or more than one may be
 */
export function siteBuild(name: string, given: readonly NamedFile[]): SiteBuild {
  const files = withoutFrame(given.filter(({ path }) => !isLitter(path)));
  if (!files.length) throw new RangeError('There is no file in it.');
  if (files.length > BUILD_LIMITS.files)
    throw new RangeError(`A build has at most ${BUILD_LIMITS.files.toLocaleString('en')} files.`);
  return {
    name,
    files: files.map(({ path, bytes }) => {
      if (!isWithin(path)) throw new RangeError(`“${path.slice(0, 100)}” is no path within a build.`);
      const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
      const isPage = /\.x?html?$/i.test(path) && buffer.length <= BUILD_LIMITS.htmlBytes;
      return {
        path,
        bytes: buffer.length,
        sha256: createHash('sha256').update(buffer).digest('hex'),
        ...(isPage ? readPage(buffer, path) : {}),
      };
    }),
  };
}

/** Where the pages of a build stand until they are served. */
const BASE = 'https://build.example/';
const GROUND: Ground = { base: BASE, hosts: new Set([new URL(BASE).host]) };

/** The words of a page, and what it says of itself. */
function readPage(bytes: Buffer, path: string): Pick<BuiltFile, 'text' | 'face'> {
  const url = new URL(encodeURI(path), BASE).href;
  const read = extractHere(bytes, 'text/html', url);
  const { facts } = read as Awaited<typeof read>;
  return { text: facts.text, face: faceOf(facts, GROUND, url) };
}

/**
 * The files in a ZIP.
 * @throws RangeError for one that cannot be read, or unpacks to more than a build may be
 */
export function zippedFiles(zip: Uint8Array): NamedFile[] {
  let left: number = BUILD_LIMITS.bytes;
  let count = 0;
  let entries: Record<string, Uint8Array>;
  try {
    entries = unzipSync(zip, {
      filter: ({ name, originalSize }) => {
        if (name.endsWith('/') || isLitter(name)) return false;
        left -= originalSize;
        if (++count > BUILD_LIMITS.files)
          throw new RangeError(`A build has at most ${BUILD_LIMITS.files.toLocaleString('en')} files.`);
        if (left < 0)
          throw new RangeError(
            `It unpacks to more than ${BUILD_LIMITS.bytes / 1024 / 1024} MB, which no build takes.`,
          );
        return true;
      },
    });
  } catch (error) {
    if (error instanceof RangeError && /build/.test(error.message)) throw error;
    throw new RangeError(`The ZIP cannot be read: ${(error as Error).message}.`);
  }
  return Object.entries(entries).map(([path, bytes]) => ({ path, bytes }));
}
