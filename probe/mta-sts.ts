/** The policy of MTA-STS (RFC 8461 3.3): asked for where the zone has a record for one, redirects not followed. */
import { isSts } from '#core/extract/mta-sts';
import { joinedText } from '#core/facts/dns-text';
import type { StsPolicyEvidence } from '#core/facts/evidence';
import type { Dialer } from './dialer';
import type { HttpClient } from './http/client';
import { probeTls, type TrustStore } from './tls';

/** RFC 8461 3.2 names no limit; 64 KB are thousands of exchangers (common practice). */
const MOST_BYTES = 64 * 1024;
const KEPT = 4000;

/** @returns null where the zone has no record for a policy. Never throws */
export async function collectStsPolicy(
  { client, dialer, store }: { client: HttpClient; dialer: Dialer; store: TrustStore },
  zone: string,
): Promise<StsPolicyEvidence | null> {
  const { records } = await dialer.lookup(`_mta-sts.${zone}`, 'TXT');
  if (!records.some((r) => r.type === 'TXT' && isSts(joinedText(r.value)))) return null;
  const host = `mta-sts.${zone}`;
  const url = `https://${host}/.well-known/mta-sts.txt`;
  const [tls, { exchange, body }] = await Promise.all([
    probeTls({ dialer, store, fetchIssuer: () => Promise.resolve(undefined) }, host, 443),
    client.exchange(url, 'GET', {}, { maxBytes: MOST_BYTES }),
  ]);
  const { error } = exchange;
  return {
    host,
    chain: { start: url, hops: [exchange], end: error ? 'error' : 'answer', ...(error ? { error } : {}) },
    trusted: tls.trusted,
    names: tls.chain[0]?.names ?? [],
    text: (body ?? Buffer.alloc(0)).toString('utf8').slice(0, KEPT),
  };
}
