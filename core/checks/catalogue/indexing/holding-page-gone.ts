import { finalStatus } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.holding-page-gone', {
  'no-holding-page-known': 'neither brief nor host profile knows a holding page',
  'noindex-not-in-sitemap': 'noindex, and not in the sitemap',
  'still-in-sitemap': 'still in the sitemap',
  'may-still-listed': 'it may still be listed',
  'still-there-may-listed': 'it is still there, and may be listed',
  gone: 'gone',
});

export const holdingPageGone = defineCheck({
  id: 'indexing.holding-page-gone',
  title: 'Former holding page is gone or noindex',
  fault: 'Former holding page can still be listed',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  facts: ['paths'],
  reads: ['http', 'files'],
  needs: { pages: true },
  why: 'A “coming soon” that can still be found tells visitors that the site is not there yet.',
  source: 'common practice',
  messages: { expected: 'gone, or noindex and out of the sitemap', unit: 'page' },
  judge(context) {
    const { view, evidence, brief, profile } = context;
    const own = [...(profile.marks?.holding ?? []), ...(brief.holding?.mark ? [brief.holding.mark] : [])];
    if (!own.length) return inapplicable(msg('no-holding-page-known'));
    const listed = view.inSitemap;
    const places: PlaceResult[] = view.pages
      .filter((p) => p !== view.home && view.markOn(p, 'holding'))
      .map((p) => {
        const noindex = p.keptOut;
        return noindex && !listed.has(p.url)
          ? passed(p.url, { found: msg('noindex-not-in-sitemap') })
          : failed(p.url, { found: noindex ? msg('still-in-sitemap') : msg('may-still-listed') });
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
            ? passed(p.path, { found: commonMessage('noindex') })
            : failed(p.path, { found: msg('still-there-may-listed') }),
        );
    }
    return overPlaces(
      context,
      places.length ? places : [passed(evidence.target.url, { found: msg('gone') })],
    );
  },
  recipe: () => ({
    steps: 'Delete the holding page, or set it to draft and noindex.',
    paste: [{ label: 'Tag', text: '<meta name="robots" content="noindex">' }],
  }),
});
