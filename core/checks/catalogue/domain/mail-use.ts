/** Whether the site's domain has mail: as the brief says, else as the network does (rule 2). */
import { readField } from '#core/facts/brief';
import type { Judgement } from '#core/facts/finding';
import { mailDomain } from '#core/checks/view/mail-addresses';
import type { CheckContext } from '#core/checks/kit/check';
import { bestAnswers, isUsable } from '#core/checks/kit/dns-answers';
import { cantTell, inapplicable, untested } from '#core/checks/kit/judgement';
import { isNullMx } from './mail-exchanger';
import { defineMessages } from '#core/text/messages';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.mail-use', {
  'does-not-exist': '{zone} does not exist',
  unknown: 'the brief does not say whether the domain has mail, and it has no MX',
});

export interface MailUse {
  mail: 'yes' | 'none';
  /** What was taken instead of the brief's word. */
  notes: string[];
}

/** @returns the use of mail, or what a check says that cannot know it */
export function mailUse({ brief, evidence }: Pick<CheckContext, 'brief' | 'evidence'>): MailUse | Judgement {
  const said = readField(brief, 'mail');
  if (said.state === 'notWanted') return inapplicable(commonMessage('not-wanted', { reason: said.reason }));
  const zone = evidence.dns.zone ?? '';
  const isGone = bestAnswers(evidence, zone, 'MX').some((a) => a.rcode === 'NXDOMAIN');
  if (isGone) return cantTell(restsOnCheck('domain.resolves', msg('does-not-exist', { zone })));
  if (brief.mail) return { mail: brief.mail, notes: [] };
  const exchangers = bestAnswers(evidence, zone, 'MX')
    .filter(isUsable)
    .flatMap((a) => a.records.filter((r) => r.type === 'MX').map((r) => r.value));
  const taken = (mail: MailUse['mail'], why: string): MailUse => ({
    mail,
    notes: [`the brief does not say whether ${zone} has mail; ${why}`],
  });
  if (exchangers.some(isNullMx)) return taken('none', 'its null MX says that it has none');
  if (exchangers.length) return taken('yes', 'its MX says that it has');
  if (brief.contactEmail && mailDomain(brief.contactEmail) === zone)
    return taken('yes', 'the contact address says that it has');
  return untested(msg('unknown'), 'mail');
}

/** Whether it is known. */
export const isMailUse = (use: MailUse | Judgement): use is MailUse => 'mail' in use;
