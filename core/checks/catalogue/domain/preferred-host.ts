import { headerValues, lastAnswer } from '#core/facts/evidence';
import { hostOf } from '#core/extract/address';
import { chainText, redirectFault, refuses, restsOn } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overHosts, passed, unsure } from '#core/checks/kit/judgement';
import { hostRedirect } from '#core/recipes/web-server';

export const preferredHost = defineCheck({
  id: 'domain.preferred-host',
  title: 'Every host leads to the preferred one',
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
        if (chain.end !== 'answer' || !last) {
          // a redirect to the right place is right even when that place is silent, or goes round in itself
          const next = chain.hops.at(-1);
          const circle = redirectFault(chain);
          const onward = hostOf(headerValues(next, 'location')[0] ?? '') ?? goal;
          const arrives = next && chain.hops.length > 1 && hostOf(next.url) === goal;
          if (arrives && h.host !== goal && (circle === undefined || onward === goal))
            return passed(h.host, { found: next.url });
          return circle === undefined
            ? unsure(h.host, restsOn(chain.error, view))
            : failed(h.host, { found: circle, raw: chainText(chain) });
        }
        const raw = chainText(chain);
        const end = hostOf(last.url);
        if (end === goal) return passed(h.host, { found: last.url, raw });
        if (h.host !== goal && refuses(last.status))
          return unsure(h.host, `the server refused the visitor (${last.status})`, { raw });
        return failed(h.host, { found: end === h.host ? `stays on ${h.host}` : `leads to ${end}`, raw });
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
