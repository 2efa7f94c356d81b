import { finalStatus } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import type { FollowedLink, SiteView } from '#core/checks/view/site-view';
import { refuses } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { verbatim } from '#core/facts/message';
import { commonMessage, restsOnCheck } from '#core/text/common-messages';

/** What keeps a link from ever being answered, while a time-out may be over tomorrow. */
const DEAD = new Set(['no-name', 'refused', 'redirect-loop']);

function judgeLink({ url, chain, page, anchor }: FollowedLink, view: SiteView): PlaceResult | null {
  const status = finalStatus(chain);
  const where = { linked: page.url === url ? 'no' : 'yes', page: page.url };
  const { raw } = anchor;
  if (status === undefined) {
    const { error } = chain;
    return error && DEAD.has(error.code)
      ? failed(url, { found: commonMessage('error-linked', { message: error.message, ...where }), raw })
      : unsure(url, verbatim(error?.message) ?? commonMessage('no-answer'));
  }
  if (refuses(status) || (status === 503 && view.refusals.some((r) => r.url === url)))
    return unsure(url, commonMessage('refused', { status }));
  // a 5xx is delivery.no-server-errors' business
  if (status >= 500) return null;
  const shown = view.byUrl.get(url);
  if (shown && view.isStandIn(shown))
    return unsure(url, restsOnCheck('indexing.not-found-status', commonMessage('stand-in')));
  return status < 400
    ? passed(url)
    : failed(url, { found: commonMessage('status-linked', { status, ...where }), raw });
}

export const linksAnswer = defineCheck({
  id: 'indexing.links-answer',
  title: 'Internal links answer below 400',
  fault: 'An internal link is broken',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'link',
  facts: ['otherLinks', 'notFound'],
  reads: ['http'],
  needs: { pages: true },
  why: 'A dead link is the fault that visitors meet themselves.',
  source: 'RFC 9110 15.5',
  messages: { expected: 'a status below 400', none: 'the pages have no links' },
  judge(context) {
    const { view } = context;
    return overPlaces(
      context,
      view.followed.flatMap((link) => judgeLink(link, view) ?? []),
    );
  },
  recipe: (_, finding) => ({
    steps: 'Correct or remove these links; where the page has moved, let its old address redirect.',
    paste: [
      {
        label: 'Links',
        text: failedPlaces(finding, 50)
          .map((p) => `${p.place} (${p.found})`)
          .join('\n'),
      },
    ],
  }),
});
