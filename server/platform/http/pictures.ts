/** Pictures as answers: shown, and nothing else done with them. */
import { setHeaders, type H3Event } from 'h3';

const KEPT_SECONDS = 3600;

/** @param type of Armband's own making, never the sender's */
export function sendPicture(event: H3Event, bytes: Buffer, type: string): Buffer {
  setHeaders(event, {
    'content-type': type,
    'x-content-type-options': 'nosniff',
    'content-security-policy': "default-src 'none'; sandbox",
    'cache-control': `private, max-age=${KEPT_SECONDS}`,
  });
  return bytes;
}
