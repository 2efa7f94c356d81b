/** Asks a domain’s own mail servers whether they take mail for a mailbox, up to RCPT: nothing is ever sent. */
import type net from 'node:net';
import { exchangerOf } from '#core/checks/kit/dns-answers';
import type { MailDialogue } from '#core/launch/mail-dialogue';
import { Dialer, type DialerOptions } from './dialer';
import { describe } from './network-error';

const PORT = 25;
const EXCHANGERS = 4;
const MOST_BYTES = 16 * 1024;
const LONGEST = 200;
/** A dialogue that goes on, however slowly, ends after this. */
const LONGEST_MS = 30_000;

/** A reply: its code, and its last line. */
interface Reply {
  code: number;
  text: string;
}

const LINE_END = /\r?\n/;
const LAST_LINE = /^(\d{3})(?: (.*))?$/;
const CONTROLS = /[\u0000-\u001f\u007f-\u009f]/g;

/** Reads replies one after the other (RFC 5321 4.2.1); everything else ends the dialogue with an error. */
class Replies {
  private text = '';
  private bytes = 0;
  private wake: () => void = () => {};
  private fault: Error | undefined;

  constructor(socket: net.Socket, { idleMs, wholeMs }: { idleMs: number; wholeMs: number }) {
    const isLate = (): void => this.end(new Error('no answer in time'));
    socket.setTimeout(idleMs, isLate);
    const whole = setTimeout(isLate, wholeMs);
    socket.on('close', () => clearTimeout(whole));
    socket.on('error', (error) => this.end(error));
    socket.on('close', () => this.end(new Error('the connection was closed')));
    socket.on('data', (chunk: Buffer) => {
      this.bytes += chunk.length;
      if (this.bytes > MOST_BYTES) this.end(new Error('the reply does not end'));
      else this.text += chunk.toString('latin1');
      this.wake();
    });
  }

  private end(error: Error): void {
    this.fault ??= error;
    this.wake();
  }

  async next(): Promise<Reply> {
    for (;;) {
      const lines = this.text.split(LINE_END);
      const last = lines.slice(0, -1).findIndex((line) => LAST_LINE.test(line));
      if (last >= 0) {
        const [, code, text = ''] = LAST_LINE.exec(lines[last]!)!;
        this.text = lines.slice(last + 1).join('\n');
        return { code: Number(code), text: text.replace(CONTROLS, ' ').slice(0, LONGEST) };
      }
      if (this.fault) throw this.fault;
      await new Promise<void>((resolve) => {
        this.wake = resolve;
      });
    }
  }
}

/** Speaks with one exchanger. Never throws. */
async function speak(dialer: Dialer, exchanger: string, mailbox: string): Promise<MailDialogue> {
  const out: MailDialogue = { exchanger };
  let socket: net.Socket | undefined;
  try {
    const dialled = await dialer.connect(exchanger, PORT);
    ({ socket } = dialled);
    out.address = dialled.address;
    const replies = new Replies(socket, {
      idleMs: Math.min(dialer.timeoutMs, 15_000),
      wholeMs: Math.min(2 * dialer.timeoutMs, LONGEST_MS),
    });
    const { localAddress = '127.0.0.1' } = socket;
    // an address in place of a name that nobody could look up (RFC 5321 4.1.3)
    const self = localAddress.includes(':') ? `[IPv6:${localAddress}]` : `[${localAddress}]`;
    const steps: [stage: NonNullable<MailDialogue['stage']>, command: string | null][] = [
      ['greeting', null],
      ['EHLO', `EHLO ${self}`],
      ['MAIL', 'MAIL FROM:<>'],
      ['RCPT', `RCPT TO:<${mailbox}>`],
    ];
    for (const [stage, command] of steps) {
      if (command) socket.write(`${command}\r\n`);
      const { code, text } = await replies.next();
      Object.assign(out, { stage, code, text });
      if (code >= 400) break;
    }
    socket.write('QUIT\r\n');
  } catch (error) {
    out.error = describe(error).message;
  } finally {
    socket?.destroy();
  }
  return out;
}

const SOUND_MAILBOX = /^[a-z0-9.!#$%&'*+/=?^_`{|}~-]{1,64}@[a-z0-9.-]{1,253}$/i;

/**
 * Asks the exchangers of a zone, the preferred ones first.
 * @param mailbox of the zone; commands are made of it, so anything but a plain address is refused
 * @returns one dialogue for each exchanger; none where the zone takes no mail (RFC 7505) or names no exchanger
 * @throws RangeError for what is no mailbox
 */
export async function askMailServers(
  options: DialerOptions,
  zone: string,
  mailbox: string,
): Promise<MailDialogue[]> {
  if (!SOUND_MAILBOX.test(mailbox)) throw new RangeError(`${mailbox} is no mailbox`);
  const dialer = new Dialer({ ...options, ports: [PORT] });
  const { records } = await dialer.lookup(zone, 'MX');
  const exchangers = records
    .filter((r) => r.type === 'MX')
    .map((r) => r.value.trim())
    .sort((a, b) => Number.parseInt(a, 10) - Number.parseInt(b, 10))
    .map(exchangerOf)
    .filter(Boolean)
    .slice(0, EXCHANGERS);
  const dialogues: MailDialogue[] = [];
  for (const exchanger of exchangers) {
    const said = await speak(dialer, exchanger, mailbox);
    dialogues.push(said);
    if (said.stage === 'RCPT' && (said.code ?? 0) < 400) break;
  }
  return dialogues;
}
