/** SHA-256 of what was fetched, as hexadecimal digits. */
import { createHash, webcrypto } from 'node:crypto';

/** Larger ones are worked out beside this thread, which others wait for. */
const SMALL_BYTES = 64 * 1024;

export async function sha256(body: Buffer): Promise<string> {
  if (body.length <= SMALL_BYTES) return createHash('sha256').update(body).digest('hex');
  return Buffer.from(await webcrypto.subtle.digest('SHA-256', body)).toString('hex');
}
