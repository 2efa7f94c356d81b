import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { answerText, plainName } from '#core/checks/kit/dns-answers';
import { delegationSigners } from './ds-fits';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.signed', {
  'ds-unknown': 'whether there is a DS could not be seen',
  'domain-not-signed': 'the domain is not signed',
  bogus: 'SERVFAIL with checking, an answer without: bogus',
  'resolver-fails': 'the resolver fails with checking and without',
  authenticated: 'authenticated',
  'resolver-does-not-check': 'there is a DS, and the resolver asked does not check signatures',
});

export const signed = defineCheck({
  id: 'domain.signed',
  title: 'DNSSEC signatures are valid',
  fault: 'DNSSEC signatures are not valid',
  severity: 'blocker',
  situations: ['holding', 'live'],
  scope: 'domain',
  reads: ['dns'],
  why: 'With a broken signature the domain is gone for everyone whose resolver checks, and there for the agency whose does not.',
  source: 'RFC 4035',
  messages: { expected: 'answers that a checking resolver gives' },
  judge(context) {
    const { evidence } = context;
    const { zone, answers } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    const ds = delegationSigners(evidence);
    const { expected } = context.words;
    if (!ds.known) return inapplicable(msg('ds-unknown'));
    if (!ds.records.length) return inapplicable(msg('domain-not-signed'));
    const of = (unchecked: boolean) =>
      answers.filter(
        (a) =>
          a.role === 'resolver' &&
          plainName(a.name) === zone &&
          (a.type === 'A' || a.type === 'SOA') &&
          Boolean(a.unchecked) === unchecked,
      );
    const checked = of(false),
      plain = of(true);
    const bogus = checked.find((a) => a.rcode === 'SERVFAIL');
    if (bogus && plain.some((a) => a.rcode === 'NOERROR'))
      return overSite(
        context,
        failed(zone, {
          found: msg('bogus'),
          raw: [bogus, ...plain].map(answerText).join('\n'),
        }),
      );
    if (bogus) return cantTell(msg('resolver-fails'), { expected });
    const proven = checked.find((a) => a.authenticated && a.rcode === 'NOERROR');
    return proven
      ? overSite(context, passed(zone, { found: msg('authenticated'), raw: answerText(proven) }))
      : cantTell(msg('resolver-does-not-check'), { expected });
  },
  recipe: () => ({
    steps:
      'Compare the DS at the registrar with the keys that the operator of the zone shows. Where they differ, replace the DS, or take it out until the zone is signed again.',
  }),
});
