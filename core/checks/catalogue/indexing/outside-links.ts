import { finalStatus, type LinkEvidence } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import type { SiteView } from '#core/checks/view/site-view';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.outside-links', {
  answered: 'it answered {status}',
  'not-asked': 'links to other sites were not asked for in this audit',
});

function judgeLink({ url, chain }: LinkEvidence, view: SiteView): PlaceResult {
  const link = view.linked.get(url);
  const more = { raw: link?.anchor.raw };
  const from = { linked: link ? 'yes' : 'no', page: link?.page.url };
  const status = finalStatus(chain);
  if (status === undefined) {
    const { code, message } = chain.error ?? {};
    return code === 'no-name' ||
      code === 'refused' ||
      code === 'redirect-loop' ||
      code === 'too-many-redirects'
      ? failed(url, { found: commonMessage('error-linked', { message, ...from }), ...more })
      : unsure(url, verbatim(message) ?? commonMessage('no-answer'), more);
  }
  if (status === 404 || status === 410)
    return failed(url, { found: commonMessage('status-linked', { status, ...from }), ...more });
  // many large sites turn away what is no browser: somebody is there all the same
  return status >= 500
    ? unsure(url, msg('answered', { status }), more)
    : passed(url, { found: verbatim(String(status)) });
}

export const outsideLinks = defineCheck({
  id: 'indexing.outside-links',
  title: 'Outbound links are not dead',
  fault: 'An outbound link is dead',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'link',
  facts: ['otherLinks'],
  needs: { pages: true },
  why: 'Other people’s pages move and their domains lapse; what stands there next is seldom what the client meant to recommend.',
  source: 'RFC 9110 15.5.5, 15.5.11; common practice',
  messages: { expected: 'an answer other than “not found”', none: 'no page links to another site' },
  judge(context) {
    const { evidence, view } = context;
    const asked = evidence.links.filter((l) => !l.own);
    if (!asked.length && view.pages.some((p) => p.linksAway.some((l) => !view.siteHosts.has(l.host))))
      return cantTell(msg('not-asked'));
    return overPlaces(
      context,
      asked.map((l) => judgeLink(l, view)),
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Look where the page has moved to and change the link, or take it out; where the domain has changed hands, take it out today.',
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
