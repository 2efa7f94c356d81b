/** Whether mail for a domain is taken, from what its mail servers said up to RCPT (RFC 5321 3.3). Pure. */
import type { Outcome } from '#core/facts/finding';

/** One exchanger, as far as the dialogue came. */
export interface MailDialogue {
  exchanger: string;
  address?: string;
  /** The last command that was answered; nothing where no greeting came. */
  stage?: 'greeting' | 'EHLO' | 'MAIL' | 'RCPT';
  code?: number;
  /** The reply’s last line. */
  text?: string;
  /** Why no reply came. */
  error?: string;
}

export interface MailAnswer {
  outcome: Outcome;
  found: string;
}

/** The mailbox, or the domain, is not there (RFC 3463: x.1.x is about the address), or the server relays nothing. */
const isRefused = ({ stage, code = 0, text = '' }: MailDialogue): boolean =>
  stage === 'RCPT' && code >= 500 && (/\b5\.1\.\d/.test(text) || /relay/i.test(text));

const isTaken = ({ stage, code }: MailDialogue): boolean =>
  stage === 'RCPT' && (code === 250 || code === 251 || code === 252);

const said = ({ exchanger, stage, code, text, error }: MailDialogue): string =>
  error ? `${exchanger}: ${error}` : `${exchanger} answered ${stage} with ${code} ${text ?? ''}`.trim();

/**
 * @param mailbox that was asked for
 * @returns passed where one exchanger takes it; failed where all that answered refuse it for what it is; else
 * undecided: port 25 is closed to many networks, and a 4xx says “later”
 */
export function judgeMail(mailbox: string, dialogues: readonly MailDialogue[]): MailAnswer {
  const taken = dialogues.find(isTaken);
  if (taken) return { outcome: 'passed', found: `${taken.exchanger} takes mail for ${mailbox}` };
  const answered = dialogues.filter((d) => d.error === undefined);
  if (answered.length && answered.every(isRefused))
    return { outcome: 'failed', found: answered.map(said).join('; ') };
  const why = dialogues.map(said).join('; ') || 'no mail server is known';
  return { outcome: 'cantTell', found: `${why}. Send a mail, and say that it arrived.` };
}
