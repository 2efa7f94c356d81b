import { defineCheck } from '#core/checks/kit/check';
import { failed, overHosts, passed } from '#core/checks/kit/judgement';
import { certificateLine, weakness } from './certificate-line';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('https.certificate-key', {
  weak: '{isLeaf, select, yes {} other {{subject}: }}{weak}',
  key: '{keyType} {keyBits}, {signature}',
});

export const certificateKey = defineCheck({
  id: 'https.certificate-key',
  title: 'Certificate key and signature are strong',
  fault: 'Certificate key or signature is weak',
  severity: 'major',
  situations: ['holding', 'live'],
  scope: 'host',
  facts: ['signature'],
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
            found: msg('weak', {
              isLeaf: c === tls.chain[0] ? 'yes' : 'no',
              subject: c.subject,
              weak,
              issuer: c.issuer,
            }),
            raw: certificateLine(tls),
          });
      }
      return passed(host, {
        found: msg('key', {
          keyType: tls.chain[0]!.keyType,
          keyBits: tls.chain[0]!.keyBits ?? '',
          signature: tls.chain[0]!.signature,
        }),
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
