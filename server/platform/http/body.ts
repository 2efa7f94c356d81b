/**
 * Bodies of requests, counted while they are read: nobody can send more than a route takes, nor JSON that costs
 * more to check than it is worth.
 */
import { getHeader, type H3Event } from 'h3';
import { Refused, TooLarge } from '#server/platform/errors';

const KIB = 1024;
/** What routes take, in bytes. */
export const LIMITS = {
  /** A name and a password. */
  signIn: 4 * KIB,
  /** Forms. */
  form: 256 * KIB,
  /** Checklists and host profiles, which come as files too. */
  document: 1024 * KIB,
  /** Three million characters of CSV, in whatever letters. */
  table: 12 * 1024 * KIB,
} as const;

const MOST_KEYS = 100;
const DEEPEST = 20;
const MOST_ITEMS = 20_000;

/** How long, and how much, is still taken from a sender who was refused. */
const LINGER_MS = 10_000;
const LINGER_BYTES = 8 * 1024 * KIB;
/** So long a sender who does not end has to read the answer: closing at once would take it away again. */
const GRACE_MS = 500;

/**
 * Throws away what is still on its way, within bounds, so that the answer reaches the sender: a socket that is
 * closed with bytes unread takes the answer with it (RFC 9112 9.6).
 */
function discard({ req, res }: H3Event['node']): void {
  let left = LINGER_BYTES;
  req.on('data', (chunk: Buffer) => {
    left -= chunk.length;
    if (left >= 0) return;
    req.pause();
    // it does not end: once it has had time to read its answer it is let go
    const letGo = (): void => void setTimeout(() => req.destroy(), GRACE_MS).unref();
    if (res.writableFinished) letGo();
    else res.once('finish', letGo);
  });
  req.resume();
  // who has sent it all reads the answer, and may ask again over the same connection
  res.once('finish', () => {
    if (req.readableEnded) return;
    const timer = setTimeout(() => req.destroy(), LINGER_MS).unref();
    req.once('end', () => clearTimeout(timer));
  });
}

/**
 * @param most bytes; more is refused as soon as it is seen
 * @throws TooLarge
 */
export function readBytes(event: H3Event, most: number): Promise<Buffer> {
  const { req } = event.node;
  const tooLarge = (): TooLarge => {
    discard(event.node);
    return new TooLarge(`This is more than ${Math.round(most / KIB)} KB, the most that is taken here.`);
  };
  if (Number(getHeader(event, 'content-length') ?? 0) > most) return Promise.reject(tooLarge());
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    let size = 0;
    const take = (chunk: Buffer): void => {
      size += chunk.length;
      if (size <= most) {
        chunks.push(chunk);
        return;
      }
      req.off('data', take);
      chunks.length = 0;
      reject(tooLarge());
    };
    req.on('data', take);
    req.once('end', () => resolve(Buffer.concat(chunks)));
    req.once('error', reject);
    req.once('close', () => reject(new Refused('The request ended before it was whole.')));
  });
}

/** The name of a file that is sent as a body: percent-encoded in a header, or as it came. */
export function fileNameOf(event: H3Event): string {
  const name = getHeader(event, 'x-file-name') ?? 'file';
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}

/** What makes a value too much to look at, before anything looks at its fields. */
function excessOf(value: unknown): string | undefined {
  let level: unknown[] = [value];
  for (let depth = 0; level.length; depth++) {
    if (depth > DEEPEST) return `It is nested deeper than ${DEEPEST} levels.`;
    const next: unknown[] = [];
    for (const one of level) {
      if (typeof one !== 'object' || one === null) continue;
      const isList = Array.isArray(one);
      const held: unknown[] = isList ? one : Object.values(one);
      if (!isList && held.length > MOST_KEYS) return `An object has more than ${MOST_KEYS} fields.`;
      for (const inner of held) if (typeof inner === 'object' && inner !== null) next.push(inner);
      if (held.length > MOST_ITEMS || next.length > MOST_ITEMS) return 'It has too many parts.';
    }
    level = next;
  }
  return undefined;
}

/**
 * The JSON of a request; an empty body is an empty object.
 * @throws TooLarge, Refused
 */
export async function readJson(event: H3Event, most: number = LIMITS.form): Promise<unknown> {
  const text = (await readBytes(event, most)).toString('utf8');
  if (!text.trim()) return {};
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Refused('This is no JSON.');
  }
  const excess = excessOf(value);
  if (excess) throw new Refused(excess);
  return value;
}
