import { limitsOf } from '#core/checks/view/index-directives';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';
import { isHeeded, mustBeListed } from './wanted-pages';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('indexing.shown-in-full', {
  limited:
    '{directive} in the {inPage, select, yes {page} other {header}}{everyone, select, yes {} other { for {agent}}}',
});

export const shownInFull = defineCheck({
  id: 'indexing.shown-in-full',
  title: 'No nofollow, nosnippet or max-snippet limits listings',
  fault: 'nofollow, nosnippet or max-snippet limits listings',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  facts: ['sitemaps'],
  reads: ['files'],
  needs: { pages: true },
  why: 'A nofollow or nosnippet left over from the draft lets the page into the listings, but as a bare title, and nothing that it links to is found by it.',
  source: 'common practice: directives of the large search engines, from memory',
  messages: {
    expected: 'no nofollow, nosnippet or lapsed unavailable_after on pages that are to be listed',
    none: 'no page has to be listed',
  },
  judge(context) {
    const { view, brief, at } = context;
    return overPages(
      context,
      (page) => {
        // what keeps the page out altogether is indexing.let-in’s
        if (page.keptOut) return null;
        const limit = limitsOf(page.statements, at).find((l) => isHeeded(l.agent, brief));
        return limit
          ? failed(page.url, {
              found: msg('limited', {
                directive: limit.directive,
                inPage: limit.from === 'meta' ? 'yes' : 'no',
                everyone: limit.agent === '*' ? 'yes' : 'no',
                agent: limit.agent,
              }),
              raw: limit.raw,
            })
          : page.passed;
      },
      { byHead: true, only: (p) => mustBeListed(p, brief, view.inSitemap) },
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Take the directive out of the page’s settings, the template or the server’s configuration; where nothing is to be held back, no robots tag is needed at all.',
    paste: [{ label: 'Take out', text: failedPlaces(finding)[0]?.raw ?? '' }],
  }),
});
