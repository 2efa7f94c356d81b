/** The files of a built site, as they were found in a folder or an archive. */
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { fromBuffer, getFileNameLowLevel, type Entry, type ZipFile } from 'yauzl';
import { isLitter } from '#core/compare/build';
import { hasControls } from '#core/text/controls';
import { faceOf, type Ground } from '#core/compare/sites/page-face';
import type { BuiltFile, SiteBuild } from '#core/facts/environment';
import { extractHere } from './extractor';

const BUILD_LIMITS = {
  files: 20_000,
  bytes: 500 * 1024 * 1024,
  /** Of one page, and of all pages whose words are kept; of the others only the digest is. */
  htmlBytes: 5 * 1024 * 1024,
  allHtmlBytes: 100 * 1024 * 1024,
} as const;
const LONGEST_PATH = 1000;
const MANY = `A build has at most ${BUILD_LIMITS.files.toLocaleString('en')} files.`;

/** A file that is read when its turn comes: never all of them at once. */
export interface NamedFile {
  path: string;
  read: () => AsyncIterable<Uint8Array> | Promise<AsyncIterable<Uint8Array>>;
}

/** @param file where it is */
export const fileOnDisk = (path: string, file: string): NamedFile => ({
  path,
  read: () => createReadStream(file),
});

/** Whether a name stays within its folder, whatever its letters. */
function isWithin(path: string): boolean {
  return (
    path.length > 0 &&
    path.length <= LONGEST_PATH &&
    !/^[/\\]|\\|^[A-Za-z]:/.test(path) &&
    !hasControls(path) &&
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

/** Refuses what unpacks to more than it says, or than a build may be: bytes are counted as they come. */
class Allowance {
  private left: number = BUILD_LIMITS.bytes;

  take(bytes: number): void {
    this.left -= bytes;
    if (this.left < 0)
      throw new RangeError(
        `It unpacks to more than ${BUILD_LIMITS.bytes / 1024 / 1024} MB, which no build takes.`,
      );
  }
}

/**
 * Names, sizes and digests of a build, with the words of its pages. Files are read one after the other, and no more
 * than one page is held.
 * @throws RangeError for what is no build, or more than one may be
 */
export async function siteBuild(name: string, given: readonly NamedFile[]): Promise<SiteBuild> {
  const files = withoutFrame(given.filter(({ path }) => !isLitter(path)));
  if (!files.length) throw new RangeError('There is no file in it.');
  if (files.length > BUILD_LIMITS.files) throw new RangeError(MANY);
  const stray = files.find(({ path }) => !isWithin(path));
  if (stray) throw new RangeError(`“${stray.path.slice(0, 100)}” is no path within a build.`);
  const allowance = new Allowance();
  let htmlLeft: number = BUILD_LIMITS.allHtmlBytes;
  const read: BuiltFile[] = [];
  for (const { path, read: open } of files) {
    const hash = createHash('sha256');
    let page: Uint8Array[] | undefined = /\.x?html?$/i.test(path) ? [] : undefined;
    let bytes = 0;
    for await (const chunk of await open()) {
      allowance.take(chunk.length);
      bytes += chunk.length;
      hash.update(chunk);
      if (bytes > Math.min(BUILD_LIMITS.htmlBytes, htmlLeft)) page = undefined;
      page?.push(chunk);
    }
    if (page) htmlLeft -= bytes;
    read.push({
      path,
      bytes,
      sha256: hash.digest('hex'),
      ...(page ? readPage(Buffer.concat(page), path) : {}),
    });
  }
  return { name, files: read };
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

const unreadable = (why: string): RangeError => new RangeError(`The ZIP cannot be read: ${why}.`);
/** Bytes of a local header before its name (APPNOTE.TXT 4.3.7). */
const LOCAL_HEADER = 30;

/** Entries that share bytes unpack the same megabytes again and again. @throws RangeError */
function refuseOverlaps(entries: readonly Entry[]): void {
  const sorted = [...entries].sort((a, b) => a.relativeOffsetOfLocalHeader - b.relativeOffsetOfLocalHeader);
  let end = 0;
  for (const { relativeOffsetOfLocalHeader: start, fileNameLength, compressedSize } of sorted) {
    if (start < end) throw unreadable('two of its files share the same bytes');
    end = start + LOCAL_HEADER + fileNameLength + compressedSize;
  }
}

/** Its name as it is written; whether it stays within a build is our own rule. */
const nameOf = ({ generalPurposeBitFlag, fileNameRaw, extraFields }: Entry): string =>
  getFileNameLowLevel(generalPurposeBitFlag, fileNameRaw, extraFields, true);

/** What its directory says of each file. */
function entriesOf(zip: ZipFile): Promise<Entry[]> {
  return new Promise((resolve, reject) => {
    const entries: Entry[] = [];
    zip.on('entry', (entry: Entry) => {
      const name = nameOf(entry);
      if (!name.endsWith('/') && !isLitter(name)) entries.push(entry);
      if (entries.length > BUILD_LIMITS.files) reject(new RangeError(MANY));
      else zip.readEntry();
    });
    zip.once('end', () => resolve(entries));
    zip.once('error', (error: Error) => reject(unreadable(error.message)));
    zip.readEntry();
  });
}

/** The bytes of a file; what it really unpacks to has to be what its directory says. */
function open(zip: ZipFile, entry: Entry): Promise<AsyncIterable<Uint8Array>> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error) reject(unreadable(error.message));
      else resolve(told(stream));
    });
  });
}

async function* told(stream: AsyncIterable<Uint8Array>): AsyncIterable<Uint8Array> {
  try {
    yield* stream;
  } catch (error) {
    throw unreadable((error as Error).message);
  }
}

/**
 * The files in a ZIP, none of them unpacked yet.
 * @throws RangeError for one that cannot be read, or says that it unpacks to more than a build may be
 */
export async function zippedFiles(bytes: Uint8Array): Promise<NamedFile[]> {
  const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const zip = await new Promise<ZipFile>((resolve, reject) => {
    fromBuffer(buffer, { lazyEntries: true, decodeStrings: false }, (error, opened) =>
      error ? reject(unreadable(error.message)) : resolve(opened),
    );
  });
  if (zip.entryCount > BUILD_LIMITS.files * 2) throw new RangeError(MANY);
  const entries = await entriesOf(zip);
  refuseOverlaps(entries);
  const allowance = new Allowance();
  for (const { uncompressedSize } of entries) allowance.take(uncompressedSize);
  return entries.map((entry) => ({ path: nameOf(entry), read: () => open(zip, entry) }));
}
