import { foldLoosely } from '#core/text/fold';
import { isRegistration, registrationOf } from './registration';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('domain.registrar', {
  'registration-server-names-no-registrar': 'the registration server names no registrar',
});

/** Words that say only what kind of firm it is. */
const FORMS = /\b(?:inc|llc|ltd|limited|gmbh|ag|sa|sas|srl|bv|co|corp|corporation|company)\b|[.,]/g;
const plain = (text: string): string => foldLoosely(text).replace(FORMS, '').replace(/\s+/g, ' ').trim();

export const registrar = defineCheck({
  id: 'domain.registrar',
  title: 'Registrar is the brief’s',
  fault: 'Registrar is not the brief’s',
  severity: 'minor',
  situations: ['holding', 'former', 'live'],
  scope: 'domain',
  facts: ['registration'],
  reads: ['registration'],
  needs: { brief: ['registrar'] },
  why: 'Whoever looks for the domain on the day it lapses looks where the brief says.',
  source: 'RFC 9083',
  messages: { expected: ({ brief }) => brief.registrar },
  judge(context) {
    const { evidence, brief } = context;
    const { expected } = context.words;
    const r = registrationOf(evidence, expected);
    if (!isRegistration(r)) return r;
    if (!r.registrar) return cantTell(msg('registration-server-names-no-registrar'), { expected });
    const more = { found: verbatim(r.registrar), raw: `registrar: ${r.registrar}` };
    return overSite(
      context,
      plain(r.registrar) === plain(brief.registrar)
        ? passed(r.domain, more)
        : failed(r.domain, { ...more, adopt: { field: 'registrar', how: 'set', value: r.registrar } }),
    );
  },
  recipe: (_, finding) => ({
    steps: `Ask the client where the domain is held. If ${finding.places[0]?.found ?? 'the other one'} is right, change the brief.`,
  }),
});
