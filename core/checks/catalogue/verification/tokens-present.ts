import type { ExpectedToken } from '#core/facts/brief';
import type { PlaceResult } from '#core/facts/finding';
import { finalStatus } from '#core/facts/evidence';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answerText, bestAnswers, canonicalValue, isUsable } from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('verification.tokens-present', {
  'no-txt-answer': 'no answer to the question for TXT',
  'file-not-asked': 'the file was not asked for',
  'another-content': 'another content',
});

function judgeMeta({ kind, value }: ExpectedToken, { view }: CheckContext): PlaceResult {
  const place = `meta ${kind}`;
  const expected = value;
  const cause = view.rootCause();
  if (cause) return unsure(place, restsOnCheck(cause.check, cause.reason), { expected });
  if (!view.home) return unsure(place, commonMessage('home-not-read'), { expected });
  const metas = view.home.facts.metas.filter((m) => m.name === kind.toLowerCase());
  const hit = metas.find((m) => m.content === value);
  if (!hit) {
    const found = metas.length ? verbatim(metas.map((m) => m.content).join(', ')) : commonMessage('none');
    return failed(place, { expected, found, raw: metas[0]?.raw });
  }
  return hit.where === 'head'
    ? passed(place, { expected, found: verbatim(hit.content), raw: hit.raw })
    : failed(place, { expected, found: commonMessage('in-body'), raw: hit.raw });
}

function judgeText({ kind, value }: ExpectedToken, { view, evidence }: CheckContext): PlaceResult {
  const expected = value;
  const name = evidence.dns.zone ?? view.preferredHost;
  const place = `TXT ${name}`;
  const answers = bestAnswers(evidence, name, 'TXT');
  if (!answers.some(isUsable)) return unsure(place, msg('no-txt-answer'), { expected });
  const texts = answers.flatMap((a) =>
    a.records.filter((r) => r.type === 'TXT').map((r) => canonicalValue('TXT', r.value)),
  );
  const hit = texts.find((t) => t === value || t === `${kind}=${value}`);
  const others = texts.filter((t) => t.startsWith(`${kind}=`)).join(', ');
  return (hit ? passed : failed)(place, {
    expected,
    found: verbatim(hit) ?? (others ? verbatim(others) : commonMessage('none')),
    raw: answers.map(answerText).join('\n'),
  });
}

function judgeFile({ kind, value }: ExpectedToken, { evidence }: CheckContext): PlaceResult {
  const expected = value;
  const path = `/${kind.replace(/^\//, '')}`;
  const probe = evidence.tokenFiles.find((f) => f.path === path);
  const status = probe && finalStatus(probe.chain);
  if (!probe || status === undefined)
    return unsure(path, verbatim(probe?.chain.error?.message) ?? msg('file-not-asked'), { expected });
  const isThere = status === 200 && probe.sample?.includes(value);
  return (isThere ? passed : failed)(path, {
    expected,
    found: status === 200 ? msg('another-content') : commonMessage('status', { status }),
    raw: probe.sample,
  });
}

const JUDGES = { meta: judgeMeta, txt: judgeText, file: judgeFile };

export const tokensPresent = defineCheck({
  id: 'verification.tokens-present',
  title: 'Verification tokens are in place',
  fault: 'A verification token is missing or wrong',
  severity: 'major',
  situations: ['live'],
  scope: 'token',
  facts: ['tokenFiles'],
  reads: ['dns', 'http', 'pages'],
  needs: { brief: ['tokens'] },
  why: 'When a token goes, the client loses access to what search engines and mail services know of their site.',
  source: 'common practice',
  messages: { expected: 'each token of the brief, with exactly its value' },
  judge(context) {
    return overPlaces(
      context,
      context.brief.tokens.map((t) => JUDGES[t.place](t, context)),
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
