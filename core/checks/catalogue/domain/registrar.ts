import { foldLoosely } from '#core/text/fold';
import { where, type Check } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed, wanted } from '#core/checks/kit/judgement';

/** Words that say only what kind of firm it is. */
const FORMS = /\b(?:inc|llc|ltd|limited|gmbh|ag|sa|sas|srl|bv|co|corp|corporation|company)\b|[.,]/g;
const plain = (text: string): string => foldLoosely(text).replace(FORMS, '').replace(/\s+/g, ' ').trim();

export const registrar: Check = {
  id: 'domain.registrar',
  section: 'domain',
  title: 'The registrar is the one in the brief',
  severity: 'minor',
  situations: where('HFL'),
  scope: 'domain',
  why: 'Whoever looks for the domain on the day it lapses looks where the brief says.',
  source: 'RFC 9083',
  judge({ evidence, brief }) {
    const name = wanted(brief, 'registrar');
    if ('judgement' in name) return name.judgement;
    const r = evidence.registration;
    if (!r?.served) return inapplicable('no registration server is known for this domain');
    const expected = name.value;
    if (r.error) return cantTell(r.error, { expected });
    if (!r.registrar) return cantTell('the registration server names no registrar', { expected });
    const more = { found: r.registrar, raw: `registrar: ${r.registrar}` };
    return overSite(
      plain(r.registrar) === plain(expected)
        ? passed(r.domain, more)
        : failed(r.domain, { ...more, take: { field: 'registrar', how: 'set', value: r.registrar } }),
      { expected },
    );
  },
  recipe: (_, finding) => ({
    steps: `Ask the client where the domain is held. If ${finding.places[0]?.found ?? 'the other one'} is right, change the brief.`,
  }),
};
