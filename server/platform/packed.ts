/** JSON packed for the database. */
import { promisify } from 'node:util';
import { brotliCompress, brotliDecompress, constants, gunzip } from 'node:zlib';
import type { Evidence } from '#core/facts/evidence';
import { upgradeEvidence } from '#core/facts/upgrade';

const pack = promisify(brotliCompress);
const unpack = promisify(brotliDecompress);
const unzip = promisify(gunzip);

/** Pages of one site repeat each other from far away: a window of 16 MiB sees the page before. */
const SETTINGS = {
  params: {
    [constants.BROTLI_PARAM_QUALITY]: 5,
    [constants.BROTLI_PARAM_LGWIN]: 24,
    [constants.BROTLI_PARAM_MODE]: constants.BROTLI_MODE_TEXT,
  },
};

/** The same bytes, as they come to a thread. */
export const bufferOf = (data: Uint8Array): Buffer =>
  Buffer.from(data.buffer, data.byteOffset, data.byteLength);

export async function packJson(value: unknown): Promise<Buffer> {
  return pack(JSON.stringify(value), SETTINGS);
}

/** The JSON text of what was packed, now or with gzip by the first version. */
export function decompress(bytes: Buffer): Promise<Buffer> {
  const zipped = bytes[0] === 0x1f && bytes[1] === 0x8b;
  return (zipped ? unzip : unpack)(bytes);
}

/** Reads what was packed. */
export async function unpackJson<T>(bytes: Buffer): Promise<T> {
  return JSON.parse((await decompress(bytes)).toString('utf8')) as T;
}

/** Stored evidence, brought up to the present version. */
export async function readEvidence(bytes: Buffer): Promise<Evidence> {
  return upgradeEvidence(await unpackJson(bytes));
}
