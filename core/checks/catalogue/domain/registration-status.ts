import { isRegistration, registrationOf } from './registration';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('domain.registration-status', {
  'no-status': 'no status',
});

/**
 * Statuses that take a domain out of the zone or soon will (RFC 5731 2.3 and RFC 3915, spelt as RFC 8056 maps
 * them).
 */
const DEAD = new Set([
  'client hold',
  'server hold',
  'redemption period',
  'pending delete',
  'pending restore',
  'inactive',
]);

export const registrationStatus = defineCheck({
  id: 'domain.registration-status',
  title: 'Registration is on no hold and not being deleted',
  fault: 'Registration is on hold or being deleted',
  severity: 'blocker',
  situations: ['holding', 'former', 'live'],
  scope: 'domain',
  facts: ['registration'],
  reads: ['registration'],
  why: 'A domain on hold or in redemption is switched off, whatever its records say.',
  source: 'RFC 8056; RFC 5731',
  messages: { expected: 'no hold, redemption or pending delete' },
  judge(context) {
    const { evidence } = context;
    const { expected } = context.words;
    const r = registrationOf(evidence, expected);
    if (!isRegistration(r)) return r;
    const bad = r.status.filter((s) => DEAD.has(s.toLowerCase()));
    return overSite(
      context,
      (bad.length ? failed : passed)(r.domain, {
        found: verbatim((bad.length ? bad : r.status).join(', ') || undefined) ?? msg('no-status'),
        raw: `status: ${r.status.join(', ')}`,
      }),
    );
  },
  recipe: () => ({
    steps:
      'Call the registrar today: a hold is lifted by them (mostly an unconfirmed owner address or an unpaid bill), a redemption is paid for within days.',
  }),
});
