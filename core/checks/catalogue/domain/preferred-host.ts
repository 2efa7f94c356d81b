import type { SiteView } from '#core/checks/view/site-view';
import type { PlaceResult } from '#core/facts/finding';
import { headerValues, lastAnswer, type Chain } from '#core/facts/evidence';
import { hostOf } from '#core/extract/address';
import { chainText, redirectFault, refuses, restsOn } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overHosts, passed, unsure } from '#core/checks/kit/judgement';
import { hostRedirect } from '#core/recipes/web-server';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

/** A host whose redirects come to no page. */
function judgeUnarrived(host: string, chain: Chain, goal: string, view: SiteView): PlaceResult {
  // a redirect to the right place is right even when that place is silent, or goes round in itself
  const next = chain.hops.at(-1);
  const circle = redirectFault(chain);
  const onward = hostOf(headerValues(next, 'location')[0] ?? '') ?? goal;
  const arrives = next && chain.hops.length > 1 && hostOf(next.url) === goal;
  if (arrives && host !== goal && (circle === undefined || onward === goal))
    return passed(host, { found: verbatim(next.url) });
  return circle === undefined
    ? unsure(host, restsOn(chain.error, view))
    : failed(host, { found: verbatim(circle), raw: chainText(chain) });
}

export const preferredHost = defineCheck({
  id: 'domain.preferred-host',
  title: 'Apex and www redirect to the preferred host',
  fault: 'Apex or www does not redirect to the preferred host',
  severity: 'blocker',
  situations: ['live'],
  scope: 'host',
  needs: { brief: ['preferredHost'], hosts: true },
  why: 'With and without www are two sites to a search engine; one must lead to the other.',
  source: 'common practice',
  judge(context) {
    const { brief, view } = context;
    const goal = brief.preferredHost;
    return overHosts(
      context,
      (h) => {
        const usesHttps = h.https.end === 'answer' || redirectFault(h.https) !== undefined;
        const chain = usesHttps ? h.https : h.http;
        const last = lastAnswer(chain);
        if (chain.end !== 'answer' || !last) return judgeUnarrived(h.host, chain, goal, view);
        const raw = chainText(chain);
        const end = hostOf(last.url);
        if (end === goal) return passed(h.host, { found: verbatim(last.url), raw });
        if (h.host !== goal && refuses(last.status))
          return unsure(h.host, commonMessage('refused', { status: last.status }), { raw });
        return failed(h.host, {
          found:
            end === h.host
              ? commonMessage('stays-on', { host: h.host })
              : commonMessage('leads-to', { url: end }),
          raw,
        });
      },
      { expected: `ends on ${goal}` },
    );
  },
  recipe: ({ brief }, finding) => ({
    steps: 'Make the preferred host the primary domain at the host and let the others redirect to it.',
    paste: hostRedirect(
      failedPlaces(finding, 10).map((p) => p.place),
      brief.preferredHost ?? '',
    ),
  }),
});
