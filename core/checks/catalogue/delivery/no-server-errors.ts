import { finalStatus, type PageEvidence } from '#core/facts/evidence';
import type { SiteView } from '#core/checks/view/site-view';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('delivery.no-server-errors', {
  'lock-or-fault': 'it answers 503 to everybody: whether that is a lock or a fault cannot be seen from here',
  again: '{first}, then {status}',
});

/** A page that the server could not give; a holding page that is still up is charged by its own check. */
const judgeFault = (
  page: PageEvidence,
  status: number,
  first: number | undefined,
  view: SiteView,
): PlaceResult =>
  status === 503 && view.heldBack
    ? unsure(page.url, restsOnCheck('indexing.no-holding-page', verbatim(String(status))))
    : failed(page.url, {
        found: msg('again', { first: first ?? status, status }),
        raw: page.from ? `linked from ${page.from}` : undefined,
      });

export const noServerErrors = defineCheck({
  id: 'delivery.no-server-errors',
  title: 'No 5xx on any page',
  fault: '5xx on a page',
  severity: 'blocker',
  situations: ['staging', 'live'],
  scope: 'page',
  reads: ['http', 'pages'],
  why: 'A page that answers 5xx again and again is broken for everybody.',
  source: 'RFC 9110 15.6',
  messages: { expected: 'no status of 500 or above', unit: 'address' },
  judge(context) {
    const { evidence, view } = context;
    if (view.isShut) return cantTell(msg('lock-or-fault'));
    const places: PlaceResult[] = [];
    const notes: string[] = [];
    const refused = new Set(view.refusals.map((r) => r.evidence));
    for (const page of evidence.pages) {
      const status = finalStatus(page.chain);
      if (status === undefined || refused.has(page) || !view.within(page.url)) continue;
      const first = page.firstTry ? finalStatus(page.firstTry) : undefined;
      if (status >= 500) {
        places.push(judgeFault(page, status, first, view));
        continue;
      }
      if (first !== undefined && first >= 500)
        notes.push(`${page.url} answered ${first} once, then ${status}`);
      places.push(passed(page.url, { found: verbatim(String(status)) }));
    }
    if (!places.length) {
      const cause = view.rootCause();
      return cantTell(cause ? restsOnCheck(cause.check, cause.reason) : commonMessage('no-page-answered'));
    }
    return overPlaces(context, places, {
      notes,
    });
  },
  recipe: () => ({
    steps:
      'Look into the server’s fault log for these addresses at the time of the audit; it names the file and the reason.',
  }),
});
