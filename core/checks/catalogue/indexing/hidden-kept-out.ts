import { normaliseUrl, splitAddress } from '#core/extract/address';
import { mayFetch } from '#core/extract/robots';
import { finalStatus, type PageEvidence } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { noIndexOf, statementsOf } from '#core/checks/view/index-directives';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { conditionalHeader, isQuotable, literally } from '#core/recipes/conditional-header';
import { BY_DISALLOW, outOfListings } from './out-of-listings';
import { isBelow } from './wanted-pages';
import { defineMessages } from '#core/text/messages';
import { verbatim, hasCode, type Message } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.hidden-kept-out', {
  'not-there': 'not there ({status})',
  'server-answered': 'the server answered {status}',
  'home-shut-as-well': 'robots.txt shuts the home page as well',
  'and-in-sitemap': '{found}, and named in the sitemap',
  'no-path': 'it is no path of an address',
  'not-asked': 'it was not asked for',
});

/** Where paths begin: at the address that was audited. */
const origin = ({ view, evidence }: CheckContext): string =>
  new URL('/', view.homeEvidence?.requested ?? evidence.target.url).href;

/** How a status keeps a page out of listings. */
const keptOutBy = (status: number): Message | undefined =>
  status === 401
    ? commonMessage('needs-credentials')
    : status === 404 || status === 410
      ? msg('not-there', { status })
      : undefined;

/** @param path the hidden path that it lies at or below */
function judgePage(page: PageEvidence, path: string, context: CheckContext): PlaceResult {
  const { evidence, view } = context;
  const place = page.requested;
  const status = finalStatus(page.chain) ?? 0;
  if (!status) return unsure(place, verbatim(page.chain.error?.message) ?? commonMessage('no-answer'));
  const shut = keptOutBy(status);
  if (shut) return passed(place, { found: shut });
  if (status !== 200) return unsure(place, msg('server-answered', { status }));
  if (view.isStandIn(page))
    return unsure(place, restsOnCheck('indexing.not-found-status', commonMessage('stand-in')));
  if (!isBelow(splitAddress(page.url).path, path))
    return passed(place, { found: commonMessage('leads-to', { url: page.url }) });
  const { robots } = evidence;
  // a robots.txt that shuts everything is charged once
  if (
    robots.facts &&
    !mayFetch(robots.facts, '*', page.url).allowed &&
    !mayFetch(robots.facts, '*', origin(context)).allowed
  )
    return unsure(place, restsOnCheck('indexing.robots-allows', msg('home-shut-as-well')));
  const { isOut, ...said } = outOfListings(page.url, noIndexOf(statementsOf(page)), robots.facts);
  return (isOut ? passed : failed)(
    place,
    !isOut && view.inSitemap.has(page.url)
      ? { ...said, found: msg('and-in-sitemap', { found: said.found }) }
      : said,
  );
}

export const hiddenKeptOut = defineCheck({
  id: 'indexing.hidden-kept-out',
  title: 'Hidden pages carry noindex',
  fault: 'A hidden page is open to search engines',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  facts: ['robots', 'notFound'],
  reads: ['files', 'http'],
  needs: { brief: ['hiddenPaths'], pages: true },
  why: 'A thank-you page or a price list for the trade that search engines list is found by exactly those it was hidden from.',
  source: 'common practice; RFC 9309 3',
  messages: { expected: 'noindex, credentials, or not there' },
  judge(context) {
    const { brief, view, evidence } = context;
    const asked = new Map((evidence.hidden ?? []).map((p) => [p.requested, p]));
    const start = origin(context);
    const places = brief.hiddenPaths.flatMap((given): PlaceResult[] => {
      const url = normaliseUrl(given, start);
      if (!url) return [unsure(given, msg('no-path'))];
      const { path } = splitAddress(url);
      const below = evidence.pages.filter(
        (p) =>
          p.requested !== url && isBelow(splitAddress(p.requested).path, path) && view.within(p.requested),
      );
      const own = view.asked.get(url) ?? asked.get(url);
      // pages below it may be all there is
      return [
        ...(own ? [judgePage(own, path, context)] : below.length ? [] : [unsure(url, msg('not-asked'))]),
        ...below.map((p) => judgePage(p, path, context)),
      ];
    });
    return overPlaces(context, places);
  },
  recipe(_, finding) {
    const bad = failedPlaces(finding, 10);
    const paths = bad.map((p) => splitAddress(p.place).path).filter(isQuotable);
    const rules = [
      ...new Set(
        bad
          .filter((p) => BY_DISALLOW.some((code) => hasCode(p, code)))
          .map((p) => p.raw?.split('\n').at(-1) ?? ''),
      ),
    ].filter(Boolean);
    return {
      steps:
        'Put noindex into the head of these pages, or send it as a header for their paths alone, and take them out of the sitemap. Do not use Disallow for this: it hides the noindex.',
      paste: [
        ...bad.map((p) => ({ label: p.place, text: '<meta name="robots" content="noindex">' })),
        ...(paths.length
          ? conditionalHeader({
              variable: 'kept_out',
              header: 'X-Robots-Tag',
              value: 'noindex',
              pattern: `^(?:${paths.map((path) => literally(path.replace(/\/$/, ''))).join('|')})(?:[/?]|$)`,
            })
          : []),
        ...(rules.length ? [{ label: 'To take out of robots.txt', text: rules.join('\n') }] : []),
      ],
    };
  },
});
