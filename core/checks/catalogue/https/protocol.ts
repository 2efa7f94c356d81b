import { restsOn } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage, andList } from '#core/text/common-messages';

const msg = defineMessages('https.protocol', {
  'old-accepted': '{old} accepted{hasNewer, select, yes {} other {, nothing newer}}',
  'old-not-offered': 'TLS 1.0 and 1.1 cannot be offered from here',
});

export const protocol = defineCheck({
  id: 'https.protocol',
  title: 'TLS is 1.2 or 1.3 only',
  fault: 'TLS 1.0 or 1.1 is accepted',
  severity: 'major',
  situations: ['holding', 'live'],
  scope: 'host',
  reads: ['tls'],
  why: 'TLS 1.0 and 1.1 are withdrawn; a server that still takes them lets an attacker choose them.',
  source: 'RFC 8996; RFC 9325',
  messages: { expected: 'TLS 1.2 or 1.3, 1.0 and 1.1 refused' },
  judge(context) {
    const { view } = context;
    return overPlaces(
      context,
      view.hosts.map(({ host, tls }) => {
        const old = tls.oldProtocols?.accepted ?? [];
        const found = [...(tls.protocol ? [tls.protocol] : []), ...old].join(', ');
        if (old.length)
          return failed(host, {
            found: msg('old-accepted', {
              old: andList(old.map((o) => (o === 'TLSv1' ? 'TLS 1.0' : 'TLS 1.1'))),
              hasNewer: tls.protocol ? 'yes' : 'no',
            }),
            raw: found,
          });
        if (!tls.protocol) return unsure(host, restsOn(tls.error, view, commonMessage('no-handshake')));
        if (!/^TLSv1\.[23]$/.test(tls.protocol)) return failed(host, { found: verbatim(tls.protocol) });
        return tls.oldProtocols
          ? passed(host, { found: verbatim(found) })
          : unsure(host, msg('old-not-offered'), { found: verbatim(found) });
      }),
    );
  },
  recipe: () => ({
    steps: 'Switch the old versions off at the host or in the server’s configuration.',
    paste: [
      { label: 'nginx', text: 'ssl_protocols TLSv1.2 TLSv1.3;' },
      { label: 'Apache', text: 'SSLProtocol -all +TLSv1.2 +TLSv1.3' },
      { label: 'Caddy', text: 'tls {\n  protocols tls1.2 tls1.3\n}' },
    ],
  }),
});
