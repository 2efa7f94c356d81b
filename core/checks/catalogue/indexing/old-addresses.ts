import { GONE, REDIRECT_SERVERS, redirectLines } from '#core/recipes/redirects';
import { normaliseUrl } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import { lastAnswer, type Chain } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { chainText, temporaryRedirect } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { verbatim, type Message } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('indexing.old-addresses', {
  'home-page': 'the home page',
  'target-answers': '{to} answers {status}',
});

type FormerAddress = NonNullable<Brief['formerAddresses']>[number];

/** Where a former address led instead of its new one. */
function judgeElsewhere({ from, to }: FormerAddress, chain: Chain, end: string, base: string): PlaceResult {
  const { status = 0 } = lastAnswer(chain)!;
  const isHome = end === base;
  const found = isHome
    ? msg('home-page')
    : status >= 400
      ? commonMessage('status', { status })
      : verbatim(end);
  const take = {
    field: 'formerAddresses',
    how: 'swap',
    value: { from, to: end },
    instead: { from },
  } as const;
  return failed(from, {
    found,
    expected: to,
    raw: chainText(chain),
    ...(status === 200 && !isHome ? { take } : {}),
  });
}

/** One that is gone on purpose says so itself (RFC 9110 15.5.11). */
function judgeGone(from: string, chain: Chain): PlaceResult {
  const { status = 0 } = lastAnswer(chain)!;
  const isGone = status === 410 && chain.hops.length === 1;
  return (isGone ? passed : failed)(from, {
    found: commonMessage('status', { status: chain.hops[0]!.status ?? status }),
    expected: GONE,
    raw: chainText(chain),
  });
}

function judgeAddress(address: FormerAddress, chain: Chain | undefined, base: string): PlaceResult {
  const { from, to } = address;
  if (!chain) return unsure(from, commonMessage('not-asked'), { expected: to });
  const raw = chainText(chain);
  const bad = (found: Message): PlaceResult => failed(from, { found, expected: to, raw });
  if (chain.end === 'error')
    return chain.error?.code === 'timeout'
      ? unsure(from, verbatim(chain.error.message), { expected: to, raw })
      : bad(verbatim(chain.error?.message) ?? commonMessage('no-answer'));
  if (to === GONE) return judgeGone(from, chain);
  const { url, status } = lastAnswer(chain)!;
  const end = normaliseUrl(url)!;
  const goal = normaliseUrl(to, base);
  // the new address may lead on itself, as to its form with a slash
  const isPassed = chain.hops.some((x) => normaliseUrl(x.url) === goal);
  if (end !== goal && (!isPassed || end === base)) return judgeElsewhere(address, chain, end, base);
  if (status !== 200) return bad(msg('target-answers', { to, status }));
  const temporary = temporaryRedirect(chain);
  if (temporary) return bad(commonMessage('not-permanent', { status: temporary.status }));
  return passed(from, { found: verbatim(to), expected: to, raw });
}

export const oldAddresses = defineCheck({
  id: 'indexing.old-addresses',
  title: 'Former addresses redirect to their new pages',
  fault: 'A former address does not redirect to its new page',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  facts: ['former'],
  reads: ['http'],
  needs: { brief: ['formerAddresses'], pages: true },
  why: 'Every listing and link of years points there; without redirects the site begins anew.',
  source: 'RFC 9110 15.4.2; common practice',
  messages: {
    expected: 'a permanent redirect to the new address, or 410 where it is gone on purpose',
    unit: 'address',
  },
  judge(context) {
    const { brief, evidence, view } = context;
    const base = `https://${brief.preferredHost ?? view.preferredHost}/`;
    return overPlaces(
      context,
      brief.formerAddresses.map((a) =>
        judgeAddress(a, evidence.former.find((f) => f.from === a.from)?.chain, base),
      ),
    );
  },
  recipe: ({ view }, finding) => {
    const bad = failedPlaces(finding, 100).map((p) => ({ from: p.place, to: p.expected ?? '/' }));
    return {
      steps: 'Set one permanent redirect for each, and 410 for those that are gone on purpose.',
      paste: REDIRECT_SERVERS.map((label) => ({
        label,
        text: redirectLines(bad, label, [...view.siteHosts]),
      })),
    };
  },
});
