/** Judging hosts by what they sent in the handshake. */
import type { HostEvidence, TlsEvidence } from '#core/facts/evidence';
import type { Judgement, PlaceResult } from '#core/facts/finding';
import type { SiteView } from '#core/checks/view/site-view';
import { overPlaces, unsure } from '#core/checks/kit/judgement';

/** Judges every host with a finished handshake; the others rest on https.answers. */
export function overTlsHosts(
  view: SiteView,
  expected: string,
  judge: (tls: TlsEvidence, host: HostEvidence) => PlaceResult,
): Judgement {
  const places = view.hosts.map((h) =>
    h.tls.chain.length
      ? judge(h.tls, h)
      : unsure(
          h.host,
          `rests on ${h.tls.error?.code === 'no-name' || h.tls.error?.code === 'no-address' ? 'domain.resolves' : 'https.answers'}: ${h.tls.error?.message ?? 'no handshake'}`,
        ),
  );
  return overPlaces(places, { expected, unit: ['host', 'hosts'] });
}

/** A certificate in one line, for the evidence. */
export function certificateLine(tls: TlsEvidence): string {
  const c = tls.chain[0]!;
  return `${c.subject}; issuer ${c.issuer}; SAN ${c.names.join(', ') || 'none'}; ${c.notBefore} to ${c.notAfter}`;
}
