import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';
import { isExplained, isHeeded, mustBeListed } from './wanted-pages';
import { commonMessage } from '#core/text/common-messages';

export const letIn = defineCheck({
  id: 'indexing.let-in',
  title: 'Live pages carry no noindex',
  fault: 'Live pages carry noindex',
  severity: 'blocker',
  situations: ['live'],
  scope: 'page',
  facts: ['sitemaps'],
  reads: ['files'],
  needs: { pages: true },
  why: 'The switch that kept the draft out is the one most often forgotten; the site is then found by nobody.',
  source: 'common practice',
  messages: { expected: 'no noindex on home, required and sitemap pages' },
  judge(context) {
    const { view, brief } = context;
    const { inSitemap } = view;
    const aside = view.pages
      .filter((p) => p.noIndex.length && !mustBeListed(p, brief, inSitemap) && isExplained(p, brief))
      .map((p) => p.url);
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
              ...(page === view.home
                ? {}
                : { adopt: { field: 'hiddenPaths', how: 'add', value: page.path } as const }),
            })
          : page.passed;
      },
      {
        byHead: true,
        only: (p) => mustBeListed(p, brief, inSitemap),
        notes: aside.length
          ? [`kept out, but not pages that must be listed: ${aside.slice(0, 10).join(', ')}`]
          : [],
      },
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Switch off “keep search engines out” in the site’s settings (look at the effect, not at the wording of the switch), or take this out of the template or the server’s configuration. Then publish and empty the caches.',
    paste: [{ label: 'Take out', text: failedPlaces(finding)[0]?.raw ?? '' }],
  }),
});
