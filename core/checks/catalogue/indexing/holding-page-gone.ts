import { finalStatus } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';

export const holdingPageGone = defineCheck({
  id: 'indexing.holding-page-gone',
  title: 'Former holding page is gone or noindex',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  reads: ['http', 'files'],
  needs: { pages: true },
  why: 'A “coming soon” that can still be found tells visitors that the site is not there yet.',
  source: 'common practice',
  messages: { expected: 'gone, or noindex and out of the sitemap', unit: 'page' },
  judge(context) {
    const { view, evidence, brief, profile } = context;
    const own = [...(profile.marks?.holding ?? []), ...(brief.holding?.mark ? [brief.holding.mark] : [])];
    if (!own.length) return inapplicable('neither brief nor host profile knows a holding page');
    const listed = view.inSitemap;
    const places: PlaceResult[] = view.pages
      .filter((p) => p !== view.home && view.markOn(p, 'holding'))
      .map((p) => {
        const noindex = p.keptOut;
        return noindex && !listed.has(p.url)
          ? passed(p.url, { found: 'noindex, and not in the sitemap' })
          : failed(p.url, { found: noindex ? 'still in the sitemap' : 'it may still be listed' });
      });
    for (const p of evidence.paths) {
      if (finalStatus(p.chain) !== 200 || !p.sample || places.some((x) => x.place.endsWith(p.path))) continue;
      const text = foldLoosely(p.sample.replace(/<[^>]*>/g, ' '));
      if (own.some((m) => text.includes(foldLoosely(m))))
        places.push(
          /noindex/i.test(p.sample) ||
            p.chain.hops
              .at(-1)!
              .headers.some(([n, v]) => /^x-robots-tag$/i.test(n) && /noindex|none/i.test(v))
            ? passed(p.path, { found: 'noindex' })
            : failed(p.path, { found: 'it is still there, and may be listed' }),
        );
    }
    return overPlaces(context, places.length ? places : [passed(evidence.target.url, { found: 'gone' })]);
  },
  recipe: () => ({
    steps: 'Delete the holding page, or set it to draft and noindex.',
    paste: [{ label: 'Tag', text: '<meta name="robots" content="noindex">' }],
  }),
});
