import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed } from '#core/checks/kit/judgement';
import { bestAnswers, canonicalValue } from '#core/checks/kit/dns-answers';
import { verbatim } from '#core/facts/message';

/**
 * Names of ownership tokens: meta names and TXT prefixes (common practice: all of them carry one of these
 * words).
 */
const KIND = /verif(y|ication)|validat/i;

/** Whether a meta name or TXT prefix is that of an ownership token. */
export function namesToken(name: string): boolean {
  return KIND.test(name);
}

export const tokensKnown = defineCheck({
  id: 'verification.tokens-known',
  title: 'Verification tokens are all in the brief',
  fault: 'A verification token is not in the brief',
  severity: 'minor',
  situations: ['live'],
  scope: 'token',
  reads: ['dns'],
  needs: { brief: ['tokens'], pages: true },
  why: 'A token that nobody knows gives somebody access to the site’s search data.',
  source: 'common practice',
  messages: { expected: 'only tokens that the brief lists', none: 'no token was found' },
  judge(context) {
    const { view, brief, evidence } = context;
    const known = new Set(brief.tokens.flatMap((t) => [t.value, `${t.kind}=${t.value}`]));
    const places: PlaceResult[] = [];
    for (const meta of view.home?.facts.metas ?? [])
      if (meta.name && namesToken(meta.name))
        places.push(
          known.has(meta.content)
            ? passed(`meta ${meta.name}`, { found: verbatim(meta.content), raw: meta.raw })
            : failed(`meta ${meta.name}`, {
                found: verbatim(meta.content),
                raw: meta.raw,
                adopt: {
                  field: 'tokens',
                  how: 'add',
                  value: { kind: meta.name, value: meta.content, place: 'meta' },
                },
              }),
        );
    const texts = new Set(
      bestAnswers(evidence, evidence.dns.zone ?? '', 'TXT').flatMap((a) =>
        a.records.filter((r) => r.type === 'TXT').map((r) => canonicalValue('TXT', r.value)),
      ),
    );
    for (const text of texts) {
      const kind = text.split('=')[0]!;
      if (text.includes('=') && namesToken(kind))
        places.push(
          known.has(text) || known.has(text.slice(kind.length + 1))
            ? passed(`TXT ${kind}`, { found: verbatim(text), raw: text })
            : failed(`TXT ${kind}`, {
                found: verbatim(text),
                raw: text,
                adopt: {
                  field: 'tokens',
                  how: 'add',
                  value: { kind, value: text.slice(kind.length + 1), place: 'txt' },
                },
              }),
        );
    }
    return overPlaces(context, places);
  },
  recipe: () => ({
    steps: 'Ask the client whose token it is. Take it out if nobody knows, or add it to the brief.',
  }),
});
