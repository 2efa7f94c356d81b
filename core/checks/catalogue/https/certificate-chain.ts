import { quantity } from '#core/text/quantity';
import { where, type Check } from '#core/checks/kit/check';
import { failed, inapplicable, passed, unsure } from '#core/checks/kit/judgement';
import { overTlsHosts, certificateLine } from './tls-hosts';

export const certificateChain: Check = {
  id: 'https.certificate-chain',
  section: 'https',
  title: 'The server sends its intermediates',
  severity: 'major',
  situations: where('HL'),
  scope: 'host',
  needs: 'tls',
  why: 'Desktop browsers fill the gap from memory; phones, mail clients and feed readers refuse.',
  source: 'RFC 8446 4.4.2',
  judge({ view }) {
    if (
      view.hosts.some((h) => h.tls.chain.length) &&
      view.hosts.every((h) => !h.tls.chain.length || h.tls.chain[0]!.subject === h.tls.chain[0]!.issuer)
    )
      return inapplicable('self-signed: there is no intermediate');
    return overTlsHosts(view, 'leaf and intermediates', (tls, host) => {
      const raw = tls.chain.map((c) => `${c.subject} <- ${c.issuer}`).join('\n');
      const found = `${quantity(tls.chain.length, 'certificate')} sent`;
      if (tls.trusted) return passed(host.host, { found, raw });
      if (tls.completedChain)
        return failed(host.host, {
          found: `${found}; the chain holds only once the missing one is fetched`,
          raw,
        });
      return unsure(host.host, 'rests on https.certificate-valid', { raw: certificateLine(tls) });
    });
  },
  recipe: () => ({
    steps: 'Install the full chain: the certificate followed by the issuer’s intermediates, in one file.',
    paste: [
      { label: 'nginx', text: 'ssl_certificate /etc/ssl/fullchain.pem;' },
      { label: 'Apache', text: 'SSLCertificateFile /etc/ssl/fullchain.pem' },
    ],
  }),
};
