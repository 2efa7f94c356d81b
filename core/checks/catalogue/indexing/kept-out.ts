import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { headerRecipe } from '#core/recipes/web-server';
import { outOfListings } from './out-of-listings';
import { defineMessages } from '#core/text/messages';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.kept-out', {
  'answers-503': 'answers 503',
  'seen-from-inside': 'seen from an address that may enter; others may be kept out',
  'answers-503-everybody': 'answers 503 to everybody',
});

export const keptOut = defineCheck({
  id: 'indexing.kept-out',
  title: 'noindex or a login keeps search engines out',
  fault: 'A page is open to search engines',
  severity: 'blocker',
  situations: ['staging', 'holding'],
  scope: 'page',
  facts: ['robots'],
  reads: ['files', 'pages'],
  why: 'A half-finished copy in a search listing competes with the real site and shows the client’s drafts.',
  source: 'RFC 9309; common practice',
  messages: { expected: 'noindex, credentials or 503 on every page' },
  judge(context) {
    const { view, evidence } = context;
    const byAddress = evidence.target.wayIn === 'addresses';
    const places = [
      ...view.pages.map((page) => {
        const status = page.evidence.chain.hops.at(-1)?.status;
        if (status === 503) return passed(page.url, { found: msg('answers-503') });
        const { isOut, ...said } = outOfListings(page.url, page.noIndex, evidence.robots.facts);
        if (isOut) return passed(page.url, said);
        if (view.shutDoor) return passed(page.url, { found: view.shutDoor });
        return byAddress ? unsure(page.url, msg('seen-from-inside')) : failed(page.url, said);
      }),
      ...view.refusals.map((r) =>
        r.status === 401
          ? passed(r.url, { found: commonMessage('needs-credentials') })
          : unsure(r.url, commonMessage('refused', { status: r.status })),
      ),
    ];
    const shut = view.homeEvidence;
    if ((view.isShut || view.isBarred) && shut)
      places.push(passed(shut.url, { found: msg('answers-503-everybody') }));
    if (!places.length) {
      const cause = view.rootCause();
      return cantTell(cause ? restsOnCheck(cause.check, cause.reason) : commonMessage('no-page-read'));
    }
    return overPlaces(context, places);
  },
  recipe: ({ evidence }) => ({
    steps:
      'Ask for a password on the whole environment, or send noindex with every answer. Do not use Disallow for this: it hides the noindex.',
    paste: [
      { label: 'Tag in every head', text: '<meta name="robots" content="noindex">' },
      ...headerRecipe('X-Robots-Tag', 'noindex'),
      ...(evidence.robots.facts?.groups.length
        ? [{ label: 'robots.txt', text: 'User-agent: *\nDisallow:' }]
        : []),
    ],
  }),
});
