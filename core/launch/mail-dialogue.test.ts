/** What a dialogue with mail servers proves. Replies after RFC 5321 4.2 and RFC 3463. */
import { expect, it } from 'vitest';
import { judgeMail, type MailDialogue } from './mail-dialogue';

const MAILBOX = 'info@marsh-choir.example';
const at = (more: Partial<MailDialogue>): MailDialogue => ({
  exchanger: 'mx1.example',
  address: '192.0.2.25',
  stage: 'RCPT',
  ...more,
});

it.each<[string, MailDialogue[], string]>([
  ['taken', [at({ code: 250, text: 'OK' })], 'passed'],
  ['taken and forwarded', [at({ code: 251, text: 'will forward' })], 'passed'],
  ['taken by the second', [at({ error: 'refused' }), at({ code: 250 })], 'passed'],
  ['no such mailbox', [at({ code: 550, text: '5.1.1 no such user' })], 'failed'],
  ['no relaying for the domain', [at({ code: 554, text: '5.7.1 Relay access denied' })], 'failed'],
  [
    'one refuses, the other does not answer',
    [at({ code: 550, text: '5.1.1 no' }), at({ error: 'time-out' })],
    'failed',
  ],
  ['greylisted', [at({ code: 450, text: '4.2.0 try again later' })], 'cantTell'],
  ['refused for where it was asked from', [at({ code: 554, text: '5.7.1 blocked by a list' })], 'cantTell'],
  ['refused at the greeting', [at({ stage: 'greeting', code: 554, text: 'no service' })], 'cantTell'],
  ['port 25 is closed', [at({ stage: undefined, error: 'connection refused' })], 'cantTell'],
  ['no exchanger at all', [], 'cantTell'],
])('%s', (_, dialogues, outcome) => {
  expect(judgeMail(MAILBOX, dialogues).outcome).toBe(outcome);
});
