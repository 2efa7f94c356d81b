import { mayFetch } from '#core/extract/robots';
import { where, type Check } from '../check';
import { cantTell, failed, overPlaces, passed, unsure } from '../judgement';
import { headerRecipe } from '#core/recipes/web-server';

export const keptOut: Check = {
  id: 'indexing.kept-out', section: 'indexing', title: 'Search engines are kept out', severity: 'blocker', situations: where('SH'), scope: 'page',
  why: 'A half-finished copy in a search listing competes with the real site and shows the client’s drafts.',
  source: 'RFC 9309; common practice',
  judge({ view, evidence }) {
    const robots = evidence.robots.facts;
    const byAddress = evidence.target.wayIn === 'addresses';
    const places = [
      ...view.pages.map((page) => {
        const status = page.evidence.chain.hops.at(-1)?.status;
        if (status === 503) return passed(page.url, { found: 'answers 503' });
        const noindex = page.keptOut;
        const rule = robots ? mayFetch(robots, '*', page.url) : { allowed: true };
        if (noindex && rule.allowed) return passed(page.url, { found: noindex.from === 'meta' ? 'noindex in the page' : 'noindex in the header', raw: noindex.raw });
        if (view.shutDoor) return passed(page.url, { found: view.shutDoor });
        if (byAddress) return unsure(page.url, 'seen from an address that may enter; others may be kept out');
        const named = page.noIndex[0];
        if (noindex) return failed(page.url, { found: 'noindex behind a Disallow, so it is never seen', raw: `${noindex.raw}\n${rule.rule?.raw ?? ''}` });
        if (!rule.allowed) return failed(page.url, { found: 'only a Disallow, which does not keep an address out of listings', raw: rule.rule?.raw });
        return failed(page.url, { found: named ? `open to all but ${named.agent}` : 'open to search engines', raw: named?.raw });
      }),
      ...view.refusals.map(r => (r.status === 401 ? passed(r.url, { found: 'needs credentials' }) : unsure(r.url, `the server refused the visitor (${r.status})`))),
    ];
    if (!places.length) { const cause = view.rootCause(); return cantTell(cause ? `rests on ${cause.check}: ${cause.reason}` : 'no page was read'); }
    return overPlaces(places, { expected: 'noindex, credentials or 503 on every page', unit: ['page', 'pages'] });
  },
  recipe: ({ evidence }) => ({ steps: 'Ask for a password on the whole place, or send noindex with every answer. Do not use Disallow for this: it hides the noindex.', paste: [{ label: 'Tag in every head', text: '<meta name="robots" content="noindex">' }, ...headerRecipe('X-Robots-Tag', 'noindex'), ...(evidence.robots.facts?.groups.length ? [{ label: 'robots.txt', text: 'User-agent: *\nDisallow:' }] : [])] }),
};
