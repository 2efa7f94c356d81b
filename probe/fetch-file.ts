/** One file of a site, fetched whole: the same doors, the same limits as an audit. */
import { finalStatus } from '#core/facts/evidence';
import { Dialer, type DialerOptions } from './dialer';
import { AGENT, type CollectOptions } from './collect';
import { HttpClient } from './http/client';
import { TrustStore } from './tls';

export type FetchOptions = Pick<
  CollectOptions & DialerOptions,
  | 'resolvers'
  | 'map'
  | 'allowPrivate'
  | 'forbidden'
  | 'timeoutMs'
  | 'agent'
  | 'store'
  | 'gate'
  | 'concurrency'
  | 'access'
  | 'signal'
  | 'ports'
>;

/**
 * @param mostBytes more is not read
 * @returns the file, or why there is none, in words
 */
export async function fetchFile(
  url: string,
  mostBytes: number,
  options: FetchOptions,
): Promise<{ bytes: Buffer } | { fault: string }> {
  const dialer = new Dialer(options);
  const client = new HttpClient(dialer, options.store ?? new TrustStore([]), {
    agent: options.agent ?? AGENT,
    timeoutMs: dialer.timeoutMs,
    maxBytes: mostBytes,
    maxRedirects: 5,
    connections: options.concurrency ?? 1,
    retryPauseMs: 0,
    signal: options.signal,
    access: options.access,
    gate: options.gate,
  });
  try {
    const { chain, body } = await client.follow(url);
    const status = finalStatus(chain);
    if (status === undefined) return { fault: chain.error?.message ?? 'no answer' };
    if (status !== 200) return { fault: `status ${status}` };
    if (!body?.length) return { fault: 'an empty file' };
    return chain.hops.at(-1)!.cut ? { fault: `larger than ${mostBytes} bytes` } : { bytes: body };
  } finally {
    await client.close();
  }
}
