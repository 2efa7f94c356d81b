/** Content codings, with a cap on what comes out. */
import zlib from 'node:zlib';
import { ProbeError } from '../network-error';

const zstd = (zlib as { zstdDecompress?: typeof zlib.brotliDecompress }).zstdDecompress;

/**
 * Undoes Content-Encoding (RFC 9110 8.4), the last one first.
 * @throws ProbeError too-large for a bomb, bad-encoding for nonsense
 */
export function decodeBody(
  body: Buffer,
  encoding: string | undefined,
  cap: number,
): Promise<Buffer> | Buffer {
  const codings = (encoding ?? '')
    .toLowerCase()
    .split(',')
    .map((c) => c.trim())
    .filter((c) => c && c !== 'identity')
    .reverse();
  if (codings.length > 3) throw new ProbeError('bad-encoding', `${codings.length} content encodings`);
  if (!codings.length || !body.length) return body;
  return codings.reduce<Promise<Buffer>>(
    async (bytes, coding) => inflate(await bytes, coding, cap),
    Promise.resolve(body),
  );
}

function inflate(bytes: Buffer, coding: string, cap: number): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const done = (error: Error | null, out: Buffer) => {
      if (!error) {
        resolve(out);
        return;
      }
      const large = (error as { code?: string }).code === 'ERR_BUFFER_TOO_LARGE';
      reject(
        new ProbeError(
          large ? 'too-large' : 'bad-encoding',
          large ? `it unpacks to more than ${cap} bytes` : `the content encoding ${coding} is broken`,
        ),
      );
    };
    const options = { maxOutputLength: cap };
    if (coding === 'gzip' || coding === 'x-gzip') zlib.gunzip(bytes, options, done);
    else if (coding === 'br') zlib.brotliDecompress(bytes, options, done);
    // newer Node only; it is never asked for, and some servers send it all the same
    else if (coding === 'zstd' && zstd) zstd(bytes, options, done);
    // "deflate" should be zlib, and is raw deflate from some servers
    else if (coding === 'deflate')
      (((bytes[0] ?? 0) & 15) === 8 ? zlib.inflate : zlib.inflateRaw)(bytes, options, done);
    else reject(new ProbeError('bad-encoding', `unknown content encoding ${coding}`));
  });
}
