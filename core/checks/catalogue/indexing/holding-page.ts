import { headerValues, lastAnswer } from '#core/facts/evidence';
import { where, type Check } from '#core/checks/kit/check';
import { failed, overSite, passed, cantTell } from '#core/checks/kit/judgement';

export const holdingPage: Check = {
  id: 'indexing.holding-page',
  section: 'indexing',
  title: 'The holding page is polite',
  severity: 'minor',
  situations: where('H'),
  scope: 'site',
  needs: 'pages',
  why: 'A holding page should say how to reach the client and tell search engines to come back later.',
  source: 'RFC 9110 15.6.4; common practice',
  judge({ view }) {
    const expected = '503 with Retry-After, or 200 with noindex; and how to reach the client';
    const home = view.home;
    if (!home) return cantTell('the holding page was not read', { expected });
    const answer = lastAnswer(home.evidence.chain)!;
    const retry = headerValues(answer, 'retry-after')[0];
    const quiet = answer.status === 503 ? Boolean(retry) : home.keptOut !== undefined;
    const reach =
      home.mailAddresses.length > 0 ||
      home.facts.anchors.some((a) => a.href.startsWith('tel:')) ||
      home.facts.forms.length > 0;
    const wrong = [
      quiet ? '' : answer.status === 503 ? '503 without Retry-After' : `${answer.status} without noindex`,
      reach ? '' : 'no way to reach the client',
    ].filter(Boolean);
    return overSite(
      (wrong.length ? failed : passed)(home.url, {
        found: wrong.join('; ') || `status ${answer.status}`,
        raw: retry ? `Retry-After: ${retry}` : undefined,
      }),
      { expected },
    );
  },
  recipe: ({ brief }) => ({
    steps: 'Answer 503 with Retry-After, or put noindex into the page, and add a way to reach the client.',
    paste: [
      { label: 'Header', text: 'Retry-After: 86400' },
      { label: 'Tag', text: '<meta name="robots" content="noindex">' },
      ...(brief.contactEmail
        ? [{ label: 'Mail link', text: `<a href="mailto:${brief.contactEmail}">${brief.contactEmail}</a>` }]
        : []),
    ],
  }),
};
