import type { CertificateFacts, TlsEvidence } from '#core/facts/evidence';

/** A certificate in one line, for the evidence. */
export function certificateLine(tls: TlsEvidence): string {
  const c = tls.chain[0]!;
  return `${c.subject}; issuer ${c.issuer}; SAN ${c.names.join(', ') || 'none'}; ${c.notBefore} to ${c.notAfter}`;
}

const WEAK_HASH = /sha-?1(?!\d)|md5|md2/i;

/** What is weak about a certificate, in words. Ed25519 and Ed448 keys are strong at their own sizes. */
export function weakness(c: CertificateFacts): string | undefined {
  if (c.keyType.startsWith('RSA') && (c.keyBits ?? 0) < 2048)
    return `RSA key of ${c.keyBits ?? 'unknown'} bits`;
  if (c.keyType === 'EC' && (c.keyBits ?? 0) < 256) return `EC key of ${c.keyBits ?? 'unknown'} bits`;
  return WEAK_HASH.test(c.signature) ? `signed with ${c.signature}` : undefined;
}
