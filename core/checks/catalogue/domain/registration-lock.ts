import { isRegistration, registrationOf } from './registration';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('domain.registration-lock', {
  'no-transfer-lock': 'no transfer lock',
});

const LOCK = /^(?:client|server) transfer prohibited$/i;

export const registrationLock = defineCheck({
  id: 'domain.registration-lock',
  title: 'Transfer lock is set',
  fault: 'Transfer lock is not set',
  severity: 'minor',
  situations: ['holding', 'former', 'live'],
  scope: 'domain',
  facts: ['registration'],
  reads: ['registration'],
  why: 'Without the lock a leaked code is enough to move the domain elsewhere.',
  source: 'RFC 8056; RFC 5731',
  judge(context) {
    const { evidence, brief, situation } = context;
    // a plan that names a transfer asks for the opposite, until the launch
    const moving = situation !== 'live' && /transfer/i.test(brief.registrationPlan ?? '');
    const expected = moving
      ? 'no transfer lock, since a transfer is planned'
      : 'transfer prohibited by client or server';
    const r = registrationOf(evidence, expected);
    if (!isRegistration(r)) return r;
    const lock = r.status.find((s) => LOCK.test(s));
    return overSite(
      context,
      ((lock !== undefined) !== moving ? passed : failed)(r.domain, {
        found: verbatim(lock) ?? msg('no-transfer-lock'),
        raw: `status: ${r.status.join(', ')}`,
      }),
      { expected },
    );
  },
  recipe: ({ brief, situation }) => ({
    steps:
      situation !== 'live' && /transfer/i.test(brief.registrationPlan ?? '')
        ? 'Unlock the domain at the present registrar and fetch the transfer code.'
        : 'Switch the transfer lock on at the registrar.',
  }),
});
