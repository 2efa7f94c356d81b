import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';
import { isExplained, isHeeded, mustBeListed } from './wanted-pages';
import { commonMessage } from '#core/text/common-messages';

export const unexpectedNoindex = defineCheck({
  id: 'indexing.unexpected-noindex',
  title: 'No other page carries an unexpected noindex',
  fault: 'Another page carries an unexpected noindex',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  facts: ['sitemaps'],
  reads: ['files'],
  needs: { pages: true },
  why: 'A page that visitors reach by links and search engines may not list is found by nobody who searches for it, and nobody notices.',
  source: 'common practice',
  messages: {
    expected: 'no noindex, unless the brief hides the page or its kind explains it',
    none: 'no other page is reached by links',
  },
  judge(context) {
    const { view, brief } = context;
    const { inSitemap } = view;
    return overPages(
      context,
      (page) => {
        const against = page.noIndex.find((n) => isHeeded(n.agent, brief));
        return against
          ? failed(page.url, {
              found: commonMessage('noindex-in', {
                inPage: against.from === 'meta' ? 'yes' : 'no',
                everyone: against.agent === '*' ? 'yes' : 'no',
                agent: against.agent,
              }),
              raw: against.raw,
              adopt: { field: 'hiddenPaths', how: 'add', value: page.path },
            })
          : page.passed;
      },
      {
        byHead: true,
        // those that must be listed are indexing.let-in's
        only: (p) =>
          p.evidence.via === 'link' && !mustBeListed(p, brief, inSitemap) && !isExplained(p, brief),
      },
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Take the noindex out of the page’s settings, or write the page into the brief as hidden where it is meant.',
    paste: failedPlaces(finding, 10).map((p) => ({ label: `${p.place}: take out`, text: p.raw ?? '' })),
  }),
});
