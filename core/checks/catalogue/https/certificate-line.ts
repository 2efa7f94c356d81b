import type { CertificateFacts, TlsEvidence } from '#core/facts/evidence';
import type { Message } from '#core/facts/message';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('https.certificate', {
  'short-key': '{kind} key of {bits, select, unknown {unknown} other {{bits}}} bits',
  'weak-signature': 'signed with {signature}',
});

/** A certificate in one line, for the evidence. */
export function certificateLine(tls: TlsEvidence): string {
  const c = tls.chain[0]!;
  return `${c.subject}; issuer ${c.issuer}; SAN ${c.names.join(', ') || 'none'}; ${c.notBefore} to ${c.notAfter}`;
}

const WEAK_HASH = /sha-?1(?!\d)|md5|md2/i;

/** What is weak about a certificate, in words. Ed25519 and Ed448 keys are strong at their own sizes. */
export function weakness(c: CertificateFacts): Message | undefined {
  if (c.keyType.startsWith('RSA') && (c.keyBits ?? 0) < 2048)
    return msg('short-key', { kind: 'RSA', bits: c.keyBits ?? 'unknown' });
  if (c.keyType === 'EC' && (c.keyBits ?? 0) < 256)
    return msg('short-key', { kind: 'EC', bits: c.keyBits ?? 'unknown' });
  return WEAK_HASH.test(c.signature) ? msg('weak-signature', { signature: c.signature }) : undefined;
}
