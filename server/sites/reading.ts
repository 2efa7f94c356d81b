/** Reading a first brief from a running site. */
import { proposeBrief, type Proposal } from '#core/proposals/propose-brief';
import { finalStatus } from '#core/facts/evidence';
import { collect } from '#probe/collect';
import { networkSettings } from '../audits/network';
import { Unreachable } from '../platform/errors';

/** @throws Unreachable with the reason when nothing can be read there */
export async function readFromSite(url: string): Promise<{ url: string; proposals: Proposal[] }> {
  const host = new URL(url).hostname;
  const other = host.startsWith('www.') ? host.slice(4) : `www.${host}`;
  const evidence = await collect({
    ...networkSettings(),
    url,
    kind: 'live',
    brief: { preferredHost: host, otherHosts: [other] },
    maxPages: 20,
    auditSeconds: 30,
  });
  const home = evidence.pages.find((p) => p.via === 'home');
  if (!home?.facts)
    throw new Unreachable(
      `Nothing could be read at ${url}: ${home?.chain.error?.message ?? `it answered ${home ? (finalStatus(home.chain) ?? 'nothing') : 'nothing'}`}.`,
    );
  return { url: home.url, proposals: proposeBrief(evidence) };
}
