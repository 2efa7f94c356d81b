import { normaliseUrl } from '#core/extract/address';
import { pathOf, redirectLines, type Redirected } from '#core/recipes/redirects';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('metadata.no-refresh', {
  'after-seconds': 'after {refreshDelay} seconds',
});

/** The delay of a refresh in seconds (HTML, shared declarative refresh steps); undefined when it is none. */
export function refreshDelay(content: string): number | undefined {
  const m = /^\s*(\d+)?(?:\.[\d.]*)?\s*(?:$|[;,\s])/.exec(content);
  return m?.[1] === undefined ? undefined : Number(m[1]);
}

/** Where a refresh leads, from its tag as it stands; undefined where it shows the page anew. */
function targetOf(raw: string, page: string): string | undefined {
  const to = /url\s*=\s*['"]?([^'">\s]+)/i.exec(raw)?.[1];
  return to === undefined ? undefined : normaliseUrl(to.replaceAll('&amp;', '&'), page);
}

export const noRefresh = defineCheck({
  id: 'metadata.no-refresh',
  title: 'No meta refresh with a delay',
  fault: 'A meta refresh has a delay',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Slow readers lose their place, and those who listen start anew.',
  source: 'WCAG 2.2.1; WCAG failures F40, F41',
  messages: { expected: 'no meta refresh with a delay' },
  judge: (context) =>
    overPages(context, (page) => {
      const meta = page.facts.metas.find(
        (m) => m.httpEquiv === 'refresh' && (refreshDelay(m.content) ?? 0) > 0,
      );
      return meta
        ? failed(page.url, {
            found: msg('after-seconds', { refreshDelay: refreshDelay(meta.content) }),
            raw: meta.raw,
          })
        : page.passed;
    }),
  recipe: ({ view }, finding) => {
    const moved = failedPlaces(finding, 20).flatMap(({ place, raw }): Redirected[] => {
      const to = targetOf(raw ?? '', place);
      return to === undefined || to === place
        ? []
        : [{ from: pathOf(place), to: view.within(to) ? pathOf(to) : to }];
    });
    return {
      steps: 'Remove the tag. Where the page has moved, redirect on the server.',
      ...(moved.length
        ? {
            paste: (['nginx', 'Apache'] as const).map((server) => ({
              label: server,
              text: redirectLines(moved, server, [...view.siteHosts]),
            })),
          }
        : {}),
    };
  },
});
