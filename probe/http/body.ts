import { headerValues, type Exchange } from '#core/facts/evidence';
import { ProbeError } from '../network-error';
import { decodeBody } from './decode';

/**
 * Reads an answer to its end and undoes its coding; its bytes are noted in the exchange.
 * @param cap the most bytes, both as they come and decoded
 * @throws ProbeError too-large, bad-encoding
 */
export async function readBody(
  stream: import('node:stream').Readable,
  exchange: Exchange,
  cap: number,
): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  // an unfinished body that is destroyed would end the process
  stream.on('error', () => {});
  for await (const chunk of stream) {
    size += (chunk as Buffer).length;
    chunks.push(chunk as Buffer);
    if (size > cap) {
      exchange.cut = true;
      stream.destroy();
      break;
    }
  }
  const encoded = chunks.length === 1 ? chunks[0]! : Buffer.concat(chunks);
  exchange.bytes = { encoded: size, decoded: size };
  if (exchange.cut) throw new ProbeError('too-large', `the answer is longer than ${cap} bytes`);
  const decoded = await decodeBody(encoded, headerValues(exchange, 'content-encoding').join(','), cap);
  exchange.bytes.decoded = decoded.length;
  return decoded;
}
