import { defineCheck } from '#core/checks/kit/check';
import { failed, overHosts, passed, unsure } from '#core/checks/kit/judgement';
import { certificateLine } from './certificate-line';
import { defineMessages } from '#core/text/messages';
import { restsOnCheck } from '#core/text/common-messages';

const msg = defineMessages('https.certificate-days', {
  'has-expired': 'it has expired',
  'days-left': '{left, plural, one {{left} day} other {{left} days}} left, until {notAfter}',
});

const DAY = 86_400_000;

export const certificateDays = defineCheck({
  id: 'https.certificate-days',
  title: 'Certificate does not end soon',
  fault: 'Certificate ends soon',
  severity: 'major',
  situations: ['holding', 'live'],
  scope: 'host',
  needs: { tls: true },
  why: 'Automatic renewal runs weeks before the end; fewer days left mean that it has stopped.',
  source: 'common practice',
  parameters: {
    days: {
      default: 21,
      min: 1,
      max: 90,
      unit: 'days',
      meaning: 'fewest days left; a quarter of the lifetime is enough where that is less',
    },
  },
  messages: {
    expected: ({ parameters }) => `at least ${parameters.days} days left, or a quarter of its lifetime`,
  },
  judge(context) {
    const { at, parameters } = context;
    return overHosts(context, ({ host, tls }) => {
      const leaf = tls.chain[0]!;
      const left = (Date.parse(leaf.notAfter) - at.getTime()) / DAY;
      const lifetime = (Date.parse(leaf.notAfter) - Date.parse(leaf.notBefore)) / DAY;
      const need = Math.min(parameters.days, lifetime / 4);
      // an expired one is charged by certificate-valid already
      if (left < 0)
        return unsure(host, restsOnCheck('https.certificate-valid', msg('has-expired')), {
          raw: certificateLine(tls),
        });
      return (left >= need ? passed : failed)(host, {
        expected: `${Math.ceil(need)} days`,
        found: msg('days-left', {
          left: Math.floor(left),
          notAfter: leaf.notAfter.slice(0, 10),
          issuer: leaf.issuer,
        }),
        raw: certificateLine(tls),
      });
    });
  },
  recipe: () => ({
    steps:
      'Start the renewal by hand at the host and look at its log. Mostly the challenge cannot be answered: an old AAAA record, a redirect of /.well-known/, or a CAA record.',
  }),
});
