import type { PlaceResult } from '#core/facts/finding';
import type { ReadPage } from '#core/checks/view/read-page';
import { finalStatus } from '#core/facts/evidence';
import { refuses } from '#core/checks/kit/chains';
import { noIndexCharge } from './wanted-pages';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.sitemap-pages', {
  'other-canonical': 'its canonical is {canonical}',
});

/** A page that the sitemap names and that answers as it should. */
function judgeOwn(page: ReadPage, { view, brief }: CheckContext): PlaceResult {
  const { url, keptOut, canonical } = page;
  if (view.isStandIn(page))
    return unsure(url, restsOnCheck('indexing.not-found-status', commonMessage('stand-in')));
  if (keptOut) {
    const charge = noIndexCharge(page, brief, view.inSitemap);
    const { raw } = keptOut;
    return charge
      ? unsure(url, restsOnCheck(charge, commonMessage('noindex')), { raw })
      : failed(url, { found: commonMessage('noindex'), raw });
  }
  return canonical && canonical !== url
    ? failed(url, { found: msg('other-canonical', { canonical }) })
    : passed(url);
}

export const sitemapPages = defineCheck({
  id: 'indexing.sitemap-pages',
  title: 'Sitemap lists only pages to be indexed',
  fault: 'Sitemap lists a page not to be indexed',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  facts: ['sitemaps', 'otherLinks', 'notFound'],
  reads: ['files', 'http'],
  needs: { pages: true },
  why: 'Dead and forbidden addresses make search engines trust the rest of the file less.',
  source: 'sitemaps.org; common practice',
  messages: {
    expected: '200, may be indexed, its own canonical',
    unit: 'address',
    none: 'there is no sitemap with addresses of this site',
  },
  judge(context) {
    const { evidence, view } = context;
    const unread = new Set(evidence.unread);
    const places = [...view.inSitemap].flatMap((url) => {
      const page = view.asked.get(url);
      if (!page) return unread.has(url) || !view.within(url) ? [] : [unsure(url, commonMessage('not-read'))];
      const status = finalStatus(page.chain);
      if (status === undefined)
        return [unsure(url, verbatim(page.chain.error?.message) ?? commonMessage('no-answer'))];
      if (refuses(status)) return [unsure(url, commonMessage('refused', { status }))];
      if (status >= 500)
        return [unsure(url, restsOnCheck('delivery.no-server-errors', verbatim(String(status))))];
      if (status !== 200) return [failed(url, { found: commonMessage('status', { status }) })];
      if (page.url !== url) return [failed(url, { found: commonMessage('leads-to', { url: page.url }) })];
      const own = view.byUrl.get(url);
      return own ? [judgeOwn(own, context)] : [];
    });
    return overPlaces(context, places);
  },
  recipe: (_, finding) => ({
    steps: 'Have the sitemap written anew; where it comes from a plug-in, leave these pages out there.',
    paste: [
      {
        label: 'To be taken out',
        text: failedPlaces(finding, 50)
          .map((p) => p.place)
          .join('\n'),
      },
    ],
  }),
});
