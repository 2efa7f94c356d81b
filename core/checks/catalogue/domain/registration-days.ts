import { isRegistration, registrationOf } from './registration';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { renewalOwner } from './renewal-owner';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('domain.registration-days', {
  'registration-gives-no-end-date': 'the registration gives no end date',
  'days-left': '{left} days, until {end}',
});

export const registrationDays = defineCheck({
  id: 'domain.registration-days',
  title: 'Registration does not end soon',
  fault: 'Registration ends soon',
  severity: 'major',
  situations: ['holding', 'former', 'live'],
  scope: 'domain',
  facts: ['registration'],
  reads: ['registration'],
  why: 'A domain that lapses takes site and mail with it, and may be bought by a stranger.',
  source: 'RFC 9083 4.5; RFC 9224',
  parameters: {
    days: {
      default: 60,
      min: 1,
      max: 365,
      unit: 'days',
      meaning: 'fewest days to the end of the registration',
    },
    renewing: {
      default: 14,
      min: 1,
      max: 365,
      unit: 'days',
      meaning: 'fewest, where it is attested that the registration renews by itself',
    },
  },
  judge(context) {
    const { evidence, at, isAttested, parameters } = context;
    const renews = isAttested?.(renewalOwner);
    const least = renews ? Math.min(parameters.renewing, parameters.days) : parameters.days;
    const expected = `at least ${least} days to its end${renews ? ', since it is attested to renew by itself' : ''}`;
    const r = registrationOf(evidence, expected);
    if (!isRegistration(r)) return r;
    const end = r.events.find((e) => e.action === 'expiration')?.date;
    if (!end || Number.isNaN(Date.parse(end)))
      return cantTell(msg('registration-gives-no-end-date'), { expected });
    const left = Math.floor((Date.parse(end) - at.getTime()) / 86_400_000);
    return overSite(
      context,
      (left >= least ? passed : failed)(r.domain, {
        found: msg('days-left', { left, end: end.slice(0, 10) }),
        raw: `expiration ${end}`,
      }),
      { expected },
    );
  },
  recipe: () => ({
    steps: 'Renew the domain at the registrar and switch on automatic renewal; write down who pays.',
  }),
});
