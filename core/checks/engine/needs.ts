/** Seeing to what a check needs before it is asked (rules 2 and 3 of the catalogue). */
import { readField, type Brief, type BriefField } from '#core/facts/brief';
import type { Evidence, HostEvidence } from '#core/facts/evidence';
import type { Judgement } from '#core/facts/finding';
import { lacksFor, type lackingIn } from '#core/facts/fact-names';
import { restsOn } from '#core/checks/kit/chains';
import type { AskedHost, Check, CheckContext, Needs } from '#core/checks/kit/check';
import { cantTell, inapplicable, untested } from '#core/checks/kit/judgement';
import type { SiteView } from '#core/checks/view/site-view';
import { defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('engine.needs', {
  'not-rendered': 'not rendered: no browser has looked at its pages yet',
  'rendering-failed': 'not rendered: {missing}',
  'no-page-to-render': 'not rendered: there was no page to look at',
  'brief-does-not-say': 'the brief does not say',
  'no-name-looked-up': 'no name was looked up',
});

/** Rule 3: what keeps all pages from being judged, unless this is the check that is charged with it. */
export function restsOnRootCause(view: SiteView, check?: Check): Judgement | null {
  const cause = view.rootCause();
  if (!cause || cause.check === check?.id) return null;
  return cantTell(restsOnCheck(cause.check, cause.reason));
}

/** Rule 2: a field not filled in makes its checks untested, one not wanted makes them inapplicable. */
function missingField(brief: Brief, fields: readonly BriefField[]): Judgement | null {
  for (const field of fields) {
    const read = readField(brief, field);
    if (read.state === 'notWanted') return inapplicable(commonMessage('not-wanted', { reason: read.reason }));
    if (read.state === 'unfilled') return untested(msg('brief-does-not-say'), field);
  }
  return null;
}

/** Why nothing is known of how pages look in a browser. */
function notRendered({ rendered }: Evidence): Message | undefined {
  if (!rendered) return msg('not-rendered');
  if (rendered.missing !== undefined) return msg('rendering-failed', { missing: rendered.missing });
  return rendered.pages.length ? undefined : msg('no-page-to-render');
}

/** Of facts that the evidence does not have. */
export const NOT_COLLECTED_YET = commonMessage('not-collected-yet');

/** @returns what follows when something is missing that the check cannot do without */
export function unmetNeed(
  check: Check,
  { view, brief, evidence }: CheckContext,
  lacking: ReturnType<typeof lackingIn>,
): Judgement | null {
  const { needs } = check;
  if (needs.pages) {
    const judgement = restsOnRootCause(view, check);
    if (judgement) return judgement;
  }
  const exempt = check.exempt?.({ brief });
  if (exempt !== undefined) return inapplicable(exempt);
  if (lacksFor(check, lacking)) return cantTell(NOT_COLLECTED_YET);
  if (needs.records && !evidence.dns.answers.length) return cantTell(msg('no-name-looked-up'));
  if (needs.rendered) {
    const why = notRendered(evidence);
    if (why !== undefined) return cantTell(why);
  }
  return needs.brief ? missingField(brief, needs.brief) : null;
}

/** The check that a host without a finished handshake rests on, and why. */
const withoutHandshake = ({ tls }: HostEvidence, view: SiteView): Message | undefined =>
  tls.chain.length ? undefined : restsOn(tls.error, view, commonMessage('no-handshake'));

const FOREIGN_PAGE = restsOnCheck('domain.connected', commonMessage('parked'));

/** The site's hosts, each with what it lacks of what a check needs. */
export function askedHosts(view: SiteView, needs: Needs): AskedHost[] {
  return view.hosts.map((evidence) => {
    const foreign = needs.hosts && view.showsForeignPage(evidence) ? FOREIGN_PAGE : undefined;
    const blockedBy = foreign ?? (needs.tls ? withoutHandshake(evidence, view) : undefined);
    return { evidence, blockedBy };
  });
}
