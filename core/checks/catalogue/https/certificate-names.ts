import { defineCheck } from '#core/checks/kit/check';
import { nameMatches } from '#core/facts/certificate';
import { failed, overHosts, passed } from '#core/checks/kit/judgement';
import { certificateLine } from './certificate-line';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('https.certificate-names', {
  'other-names': 'only {names}',
  'no-san': 'no SAN at all',
});

export const certificateNames = defineCheck({
  id: 'https.certificate-names',
  title: 'Certificate covers every host',
  fault: 'Certificate does not cover a host',
  severity: 'blocker',
  situations: ['staging', 'holding', 'live'],
  scope: 'host',
  needs: { tls: true },
  why: 'A certificate for another name stops visitors just like none; www is the one that is forgotten.',
  source: 'RFC 9525',
  messages: { expected: 'a SAN that covers the host' },
  judge(context) {
    return overHosts(context, ({ host, tls }) => {
      const names = tls.chain[0]!.names;
      const hit = names.find((n) => nameMatches(n, host));
      return hit
        ? passed(host, { found: verbatim(hit), raw: certificateLine(tls) })
        : failed(host, {
            found: names.length ? msg('other-names', { names: names.slice(0, 6).join(', ') }) : msg('no-san'),
            raw: certificateLine(tls),
          });
    });
  },
  recipe: ({ view }, finding) => ({
    steps: 'Ask the host for one certificate that names every host of the site.',
    paste: [
      {
        label: 'Names to ask for',
        text: [...new Set([...view.hosts.map((h) => h.host), ...finding.places.map((p) => p.place)])].join(
          '\n',
        ),
      },
    ],
  }),
});
