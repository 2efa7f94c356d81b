import { ownerOf } from '#core/facts/agency-book';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';
import { bestAnswers, canonicalValue } from '#core/checks/kit/dns-answers';
import { namesToken } from './tokens-known';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('verification.tokens-own', {
  'no-book': 'there is no book of other clients to compare with',
  'foreign-token': '{value}, a token of {owner}',
});

export const tokensOwn = defineCheck({
  id: 'verification.tokens-own',
  title: 'Verification tokens are none of another client’s',
  fault: 'A verification token is another client’s',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'token',
  needs: { pages: true },
  why: 'A token copied with a template shows one client’s search data to another.',
  source: 'common practice',
  messages: { expected: 'only this client’s tokens', none: 'no token was found' },
  judge(context) {
    const { view, evidence, book } = context;
    if (!book?.length) return inapplicable(msg('no-book'));
    const found = [
      ...(view.home?.facts.metas ?? [])
        .filter((m) => m.name && namesToken(m.name))
        .map((m) => ({ place: `meta ${m.name}`, value: m.content, raw: m.raw })),
      ...[
        ...new Set(
          bestAnswers(evidence, evidence.dns.zone ?? '', 'TXT').flatMap((a) =>
            a.records.filter((r) => r.type === 'TXT').map((r) => canonicalValue('TXT', r.value)),
          ),
        ),
      ]
        .filter((t) => t.includes('=') && namesToken(t.split('=')[0]!))
        .map((t) => ({ place: `TXT ${t.split('=')[0]}`, value: t.slice(t.indexOf('=') + 1), raw: t })),
    ];
    return overPlaces(
      context,
      found.map(({ place, value, raw }): PlaceResult => {
        const owner = ownerOf(book, 'tokens', value);
        return owner
          ? failed(place, { found: msg('foreign-token', { value, owner }), raw })
          : passed(place, { found: verbatim(value), raw });
      }),
    );
  },
  recipe: () => ({
    steps:
      'Take the token out of this site, and look in the other client’s console that nobody was let in by it.',
  }),
});
