/** A mail server that takes mail for the practice sites’ domains, up to DATA: what it is offered it forgets. */
import net from 'node:net';
import { SITES } from './sites';

/** Where the practice sites’ mail is delivered. */
export const MAIL_ADDRESS = '203.0.113.25';

const ANSWERS: [command: RegExp, answer: (said: string) => string][] = [
  [/^(?:EHLO|HELO)\b/i, () => '250-mail.registry.example\r\n250 8BITMIME'],
  [/^MAIL FROM:/i, () => '250 2.1.0 OK'],
  [
    /^RCPT TO:/i,
    (said) => {
      const domain = /@([^>]+)>/.exec(said)?.[1]?.toLowerCase();
      const isKnown = SITES.some((s) => s.domain === domain);
      return isKnown ? '250 2.1.5 OK' : '554 5.7.1 Relay access denied';
    },
  ],
  [/^QUIT\b/i, () => '221 2.0.0 Bye'],
];

export function mailServer(): net.Server {
  return net.createServer((socket) => {
    socket.on('error', () => {});
    socket.setTimeout(30_000, () => socket.destroy());
    socket.write('220 mail.registry.example ESMTP\r\n');
    let text = '';
    socket.on('data', (chunk) => {
      text = (text + chunk.toString('latin1')).slice(-2000);
      for (let end = text.indexOf('\r\n'); end >= 0; end = text.indexOf('\r\n')) {
        const said = text.slice(0, end);
        text = text.slice(end + 2);
        const known = ANSWERS.find(([command]) => command.test(said));
        socket.write(`${known ? known[1](said) : '502 5.5.1 not here'}\r\n`);
        if (/^QUIT\b/i.test(said)) socket.end();
      }
    });
  });
}
