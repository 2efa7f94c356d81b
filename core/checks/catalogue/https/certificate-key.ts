import type { CertificateFacts } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overHosts, passed } from '#core/checks/kit/judgement';
import { certificateLine } from './certificate-line';

const WEAK_HASH = /sha-?1(?!\d)|md5|md2/i;

/** What is weak about a certificate, in words. Ed25519 and Ed448 keys are strong at their own sizes. */
function weakness(c: CertificateFacts): string | undefined {
  if (c.keyType.startsWith('RSA') && (c.keyBits ?? 0) < 2048)
    return `RSA key of ${c.keyBits ?? 'unknown'} bits`;
  if (c.keyType === 'EC' && (c.keyBits ?? 0) < 256) return `EC key of ${c.keyBits ?? 'unknown'} bits`;
  return WEAK_HASH.test(c.signature) ? `signed with ${c.signature}` : undefined;
}

export const certificateKey = defineCheck({
  id: 'https.certificate-key',
  title: 'Keys and signatures are strong enough',
  severity: 'major',
  situations: ['holding', 'live'],
  scope: 'host',
  needs: { tls: true },
  why: 'Browsers refuse short keys and old signatures, first with a warning and then altogether.',
  source: 'RFC 9325; CA/Browser Forum Baseline Requirements 6.1.5 (from memory)',
  messages: { expected: 'RSA of at least 2048 or EC of at least 256 bits, no SHA-1 or MD5 below the root' },
  judge(context) {
    return overHosts(context, ({ host, tls }) => {
      // a root's own signature proves nothing and is not looked at
      const below = tls.chain.filter((c) => c.subject !== c.issuer || tls.chain.length === 1);
      for (const c of below) {
        const weak = weakness(c);
        if (weak)
          return failed(host, {
            found: `${c === tls.chain[0] ? '' : `${c.subject}: `}${weak}`,
            raw: certificateLine(tls),
          });
      }
      return passed(host, {
        found: `${tls.chain[0]!.keyType} ${tls.chain[0]!.keyBits ?? ''}, ${tls.chain[0]!.signature}`,
      });
    });
  },
  recipe: () => ({
    steps: 'Have a new certificate issued for a new key: EC P-256, or RSA 2048 where old devices matter.',
    paste: [
      {
        label: 'Key and request',
        text: 'openssl req -new -newkey ec -pkeyopt ec_paramgen_curve:P-256 -nodes -keyout site.key -out site.csr',
      },
    ],
  }),
});
