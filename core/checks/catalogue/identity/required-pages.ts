import { normaliseUrl } from '#core/extract/address';
import type { PlaceResult } from '#core/facts/finding';
import type { SiteView } from '#core/checks/view/site-view';
import type { ReadPage } from '#core/checks/view/read-page';
import { refuses } from '#core/checks/kit/chains';
import { finalStatus, type PageEvidence } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage, restsOnCheck } from '#core/text/common-messages';

const msg = defineMessages('identity.required-pages', {
  'leads-to-home': 'leads to the home page',
  'linked-200': 'linked, 200{leads, select, yes {, leads to {url}} other {}}',
  'not-linked-from-home-page':
    'not linked from the home page{leads, select, yes {, leads to {url}} other {}}',
  'page-not-read': 'the page was not read',
});

interface Required {
  page: PageEvidence;
  view: SiteView;
  home: ReadPage;
  /** Where the home page links to. */
  linked: ReadonlySet<string | undefined>;
  expected: string | undefined;
}

/** A required page that was asked for. */
function judgePage(path: string, url: string, { page, view, home, linked, expected }: Required): PlaceResult {
  const status = finalStatus(page.chain);
  if (status === undefined)
    return unsure(path, verbatim(page.chain.error?.message) ?? commonMessage('no-answer'), { expected });
  if (refuses(status)) return unsure(path, commonMessage('refused', { status }), { expected });
  if (status !== 200) return failed(path, { found: commonMessage('status', { status }) });
  if (view.isStandIn(page))
    return unsure(path, restsOnCheck('indexing.not-found-status', commonMessage('stand-in')), { expected });
  if (page.url === home.url && url !== home.url) return failed(path, { found: msg('leads-to-home') });
  const leadsTo = { leads: page.url === url ? 'no' : 'yes', url: page.url };
  return linked.has(url) || linked.has(page.url) || page.url === home.url
    ? passed(path, { found: msg('linked-200', leadsTo) })
    : failed(path, { found: msg('not-linked-from-home-page', leadsTo) });
}

export const requiredPages = defineCheck({
  id: 'identity.required-pages',
  title: 'Required pages are linked and answer 200',
  fault: 'A required page is not linked or does not answer 200',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['otherLinks', 'notFound'],
  reads: ['http'],
  needs: { brief: ['requiredPages'], pages: true },
  why: 'An imprint or privacy page that nobody can find counts as missing, before the law too.',
  source: 'common practice',
  messages: { expected: 'each linked from the home page and answering 200' },
  judge(context) {
    const { brief, view, evidence } = context;
    const { expected } = context.words;
    const home = view.home;
    if (!home) return cantTell(commonMessage('home-not-read'), { expected });
    const linked = new Set(home.facts.anchors.map((a) => home.target(a.href)));
    const base = evidence.target.kind === 'before' ? evidence.target.url : home.url;
    return overPlaces(
      context,
      brief.requiredPages.map((path) => {
        const url =
          normaliseUrl(evidence.target.kind === 'before' ? path.replace(/^\//, '') : path, base) ?? path;
        const page = view.asked.get(url);
        if (!page) return unsure(path, msg('page-not-read'), { expected });
        return judgePage(path, url, { page, view, home, linked, expected });
      }),
    );
  },
  recipe: (_, finding) => ({
    steps: 'Publish the page, and link it from the navigation or the footer of the home page.',
    paste: failedPlaces(finding).map((p) => ({
      label: p.place,
      text: `<a href="${p.place}">${p.place.split('/').filter(Boolean).pop() ?? 'Home'}</a>`,
    })),
  }),
});
