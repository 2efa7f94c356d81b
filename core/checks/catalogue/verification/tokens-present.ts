import type { ExpectedToken } from '#core/facts/brief';
import type { PlaceResult } from '#core/facts/finding';
import { finalStatus } from '#core/facts/evidence';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answerText, bestAnswers, canonicalValue } from '#core/checks/kit/dns-answers';

function judgeToken(token: ExpectedToken, { view, evidence }: CheckContext): PlaceResult {
  const expected = token.value;
  if (token.place === 'meta') {
    const place = `meta ${token.kind}`;
    const cause = view.rootCause();
    if (!view.home || cause)
      return unsure(
        place,
        cause ? `rests on ${cause.check}: ${cause.reason}` : 'the home page was not read',
        { expected },
      );
    const metas = view.home.facts.metas.filter((m) => m.name === token.kind.toLowerCase());
    const hit = metas.find((m) => m.content === token.value);
    if (hit)
      return hit.where === 'head'
        ? passed(place, { expected, found: hit.content, raw: hit.raw })
        : failed(place, { expected, found: 'in the body, where it does not count', raw: hit.raw });
    return failed(place, {
      expected,
      found: metas.map((m) => m.content).join(', ') || 'none',
      raw: metas[0]?.raw,
    });
  }
  if (token.place === 'txt') {
    const name = evidence.dns.zone ?? view.preferredHost;
    const place = `TXT ${name}`;
    const answers = bestAnswers(evidence, name, 'TXT');
    if (!answers.length || answers.every((a) => a.rcode !== 'NOERROR' && a.rcode !== 'NXDOMAIN'))
      return unsure(place, 'no answer to the question for TXT', { expected });
    const texts = answers.flatMap((a) =>
      a.records.filter((r) => r.type === 'TXT').map((r) => canonicalValue('TXT', r.value)),
    );
    const hit = texts.find((t) => t === token.value || t === `${token.kind}=${token.value}`);
    return (hit ? passed : failed)(place, {
      expected,
      found: hit ?? (texts.filter((t) => t.startsWith(`${token.kind}=`)).join(', ') || 'none'),
      raw: answers.map(answerText).join('\n'),
    });
  }
  const path = `/${token.kind.replace(/^\//, '')}`;
  const probe = evidence.tokenFiles.find((f) => f.path === path);
  const status = probe ? finalStatus(probe.chain) : undefined;
  if (!probe || status === undefined)
    return unsure(path, probe?.chain.error?.message ?? 'the file was not asked for', { expected });
  return (status === 200 && probe.sample?.includes(token.value) ? passed : failed)(path, {
    expected,
    found: status === 200 ? 'another content' : `status ${status}`,
    raw: probe.sample,
  });
}

export const tokensPresent = defineCheck({
  id: 'verification.tokens-present',
  title: 'Every ownership token is in its place',
  severity: 'major',
  situations: ['live'],
  scope: 'token',
  needs: { brief: ['tokens'] },
  why: 'When a token goes, the client loses access to what search engines and mail services know of their site.',
  source: 'common practice',
  messages: { expected: 'each token of the brief, with exactly its value' },
  judge(context) {
    return overPlaces(
      context,
      context.brief.tokens.map((t) => judgeToken(t, context)),
    );
  },
  recipe({ brief, evidence }, finding) {
    const bad = new Set(failedPlaces(finding).map((p) => p.expected));
    return {
      steps: 'Put the token back where its service looks for it.',
      paste: (brief.tokens ?? [])
        .filter((t) => bad.has(t.value))
        .map((t) =>
          t.place === 'meta'
            ? {
                label: 'Tag in the head of the home page',
                text: `<meta name="${t.kind}" content="${t.value}">`,
              }
            : t.place === 'txt'
              ? {
                  label: 'Record',
                  text: `${evidence.dns.zone ?? ''}. 3600 IN TXT "${t.value.includes('=') ? t.value : `${t.kind}=${t.value}`}"`,
                }
              : { label: `File ${t.kind}`, text: t.value },
        ),
    };
  },
});
