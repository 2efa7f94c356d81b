import { headerValues, lastAnswer } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { commonMessage, joinMessages, restsOnCheck } from '#core/text/common-messages';

const msg = defineMessages('indexing.holding-page', {
  'no-retry-after': '503 without Retry-After',
  'no-noindex': '{status} without noindex',
  'no-contact': 'no way to reach the client',
  'holding-page-not-read': 'the holding page was not read',
});

export const holdingPage = defineCheck({
  id: 'indexing.holding-page',
  title: 'Holding page answers 503 or noindex, with a contact',
  fault: 'Holding page can be listed or has no contact',
  severity: 'minor',
  situations: ['holding'],
  scope: 'site',
  facts: ['jsonLd'],
  reads: ['pages', 'http'],
  why: 'A holding page should say how to reach the client and tell search engines to come back later.',
  source: 'RFC 9110 15.6.4; common practice',
  messages: { expected: '503 with Retry-After, or 200 with noindex; and how to reach the client' },
  judge(context) {
    const { view } = context;
    const { expected } = context.words;
    const home = view.home;
    if (!home && view.isBarred) {
      const answer = lastAnswer(view.homeEvidence!.chain);
      const isPatient = headerValues(answer, 'retry-after').length > 0;
      const wrong = [...(isPatient ? [] : [msg('no-retry-after')]), msg('no-contact')];
      return overSite(context, failed(view.homeEvidence!.url, { found: joinMessages(wrong) }));
    }
    const cause = view.rootCause();
    if (cause) return cantTell(restsOnCheck(cause.check, cause.reason), { expected });
    if (!home) return cantTell(msg('holding-page-not-read'), { expected });
    const answer = lastAnswer(home.evidence.chain)!;
    const retry = headerValues(answer, 'retry-after')[0];
    const quiet = answer.status === 503 ? Boolean(retry) : home.keptOut !== undefined;
    const reach =
      home.mailAddresses.length > 0 ||
      home.facts.anchors.some((a) => a.href.startsWith('tel:')) ||
      home.facts.forms.length > 0;
    const wrong = [
      ...(quiet
        ? []
        : [answer.status === 503 ? msg('no-retry-after') : msg('no-noindex', { status: answer.status })]),
      ...(reach ? [] : [msg('no-contact')]),
    ];
    return overSite(
      context,
      (wrong.length ? failed : passed)(home.url, {
        found: wrong.length ? joinMessages(wrong) : commonMessage('status', { status: answer.status }),
        raw: retry ? `Retry-After: ${retry}` : undefined,
      }),
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
});
