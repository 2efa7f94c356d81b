import { fullChain } from '#core/recipes/certificates';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overHosts, passed, unsure } from '#core/checks/kit/judgement';
import { certificateLine } from './certificate-line';
import { defineMessages } from '#core/text/messages';
import { restsOnCheck } from '#core/text/common-messages';

const msg = defineMessages('https.certificate-chain', {
  'self-signed': 'self-signed: there is no intermediate',
  sent: '{count, plural, one {{count} certificate} other {{count} certificates}} sent',
  'intermediate-missing': '{found}; the chain holds only once the missing one is fetched',
  'chain-not-trusted': 'the chain is not trusted',
});

export const certificateChain = defineCheck({
  id: 'https.certificate-chain',
  title: 'Certificate chain is sent with its intermediates',
  fault: 'Certificate chain is sent without its intermediates',
  severity: 'major',
  situations: ['holding', 'live'],
  scope: 'host',
  needs: { tls: true },
  why: 'Desktop browsers fill the gap from memory; phones, mail clients and feed readers refuse.',
  source: 'RFC 8446 4.4.2',
  messages: { expected: 'leaf and intermediates' },
  judge(context) {
    const { view } = context;
    if (
      view.hosts.some((h) => h.tls.chain.length) &&
      view.hosts.every((h) => !h.tls.chain.length || h.tls.chain[0]!.subject === h.tls.chain[0]!.issuer)
    )
      return inapplicable(msg('self-signed'));
    return overHosts(context, ({ host, tls }) => {
      const raw = tls.chain.map((c) => `${c.subject} <- ${c.issuer}`).join('\n');
      const found = msg('sent', { count: tls.chain.length });
      if (tls.trusted) return passed(host, { found, raw });
      if (tls.completedChain)
        return failed(host, {
          found: msg('intermediate-missing', { found, issuer: tls.chain[0]!.issuer }),
          raw,
        });
      return unsure(host, restsOnCheck('https.certificate-valid', msg('chain-not-trusted')), {
        raw: certificateLine(tls),
      });
    });
  },
  recipe: fullChain,
});
