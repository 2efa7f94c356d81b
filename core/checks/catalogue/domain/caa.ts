import { caaClimb, parseCaa, whyNot, type CaaRecord } from '#core/extract/caa';
import type { TlsEvidence } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answerText, bestAnswers } from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('domain.caa', {
  'issuer-unknown': 'there is a CAA record, and the host profile does not say who issues',
  'no-name-server-asked-caa': 'no name server was asked for CAA',
});

/**
 * What authorities are called in certificates, and in CAA records: the domains that they publish in their practice
 * statements, as CCADB lists them (from memory).
 */
const AUTHORITIES: [organisation: RegExp, domain: string][] = [
  [/\bO\s*=\s*Let's Encrypt/i, 'letsencrypt.org'],
  [/\bO\s*=\s*Google Trust Services/i, 'pki.goog'],
  [/\bO\s*=\s*DigiCert/i, 'digicert.com'],
  [/\bO\s*=\s*(?:Sectigo|ZeroSSL)/i, 'sectigo.com'],
  [/\bO\s*=\s*GlobalSign/i, 'globalsign.com'],
  [/\bO\s*=\s*Amazon/i, 'amazon.com'],
  [/\bO\s*=\s*Buypass/i, 'buypass.com'],
  [/\bO\s*=\s*Actalis/i, 'actalis.it'],
];

/** Who issued the certificate that is served: whoever renews it will ask the same. */
const issuerOf = ({ chain }: TlsEvidence): string | undefined =>
  AUTHORITIES.find(([organisation]) => organisation.test(chain[0]?.issuer ?? ''))?.[1];

export const caa = defineCheck({
  id: 'domain.caa',
  title: 'CAA lets the host’s issuer issue',
  fault: 'CAA keeps the host’s issuer from issuing',
  severity: 'minor',
  situations: ['holding', 'live'],
  scope: 'host',
  reads: ['dns', 'tls'],
  why: 'A CAA record left by the former host stops the next renewal, weeks later and without a word.',
  source: 'RFC 8659',
  messages: { none: 'there is no CAA record, so everybody may issue' },
  judge(context) {
    const { evidence, profile, view } = context;
    const named = profile.issuer;
    const places = view.hosts.flatMap(({ host, tls }) => {
      for (const name of caaClimb(host)) {
        const answers = bestAnswers(evidence, name, 'CAA');
        const answer = answers.find((a) => a.records.some((r) => r.type === 'CAA'));
        if (!answer) continue;
        const set = answer.records
          .filter((r) => r.type === 'CAA')
          .map((r) => parseCaa(r.value))
          .filter((r): r is CaaRecord => r !== null);
        const raw = answerText(answer);
        const issuer = named ?? issuerOf(tls);
        if (!issuer) return [unsure(host, msg('issuer-unknown'), { raw })];
        // a certificate for a wildcard is renewed as one
        const wildcard =
          tls.chain[0]?.names.some((n) => n.startsWith('*.') && host.endsWith(n.slice(1))) ?? false;
        const said = set.map((r) => `${r.tag} ${r.value || '(nobody)'}`).join(', ');
        const against = whyNot(set, issuer, wildcard);
        return [
          against ? failed(host, { found: against, raw }) : passed(host, { found: verbatim(said), raw }),
        ];
      }
      return [];
    });
    if (
      !places.length &&
      !view.hosts.some((h) => bestAnswers(evidence, h.host, 'CAA').some((a) => a.rcode !== 'NONE'))
    )
      return inapplicable(msg('no-name-server-asked-caa'));
    return overPlaces(context, places, {
      expected: named ? `${named} may issue` : 'the issuer that the host uses may issue',
    });
  },
  recipe: ({ evidence, profile, view }) => ({
    steps: 'Let the host’s issuer in beside the others, or take the records away.',
    paste: [
      {
        label: 'Zone file',
        text: `${evidence.dns.zone}. 3600 IN CAA 0 issue "${profile.issuer ?? view.hosts.map((h) => issuerOf(h.tls)).find(Boolean) ?? '…'}"`,
      },
    ],
  }),
});
