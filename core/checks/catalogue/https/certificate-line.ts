import type { TlsEvidence } from '#core/facts/evidence';

/** A certificate in one line, for the evidence. */
export function certificateLine(tls: TlsEvidence): string {
  const c = tls.chain[0]!;
  return `${c.subject}; issuer ${c.issuer}; SAN ${c.names.join(', ') || 'none'}; ${c.notBefore} to ${c.notAfter}`;
}
