/** The dialogue with mail servers that answer in every way they can, bounded in time and bytes. */
import net from 'node:net';
import { afterEach, expect, it } from 'vitest';
import { serveDns, type DnsServer } from '../net/dns-server';
import { askMailServers } from './mail-dialogue';

const ZONE = 'marsh-choir.example';
const MAILBOX = `info@${ZONE}`;
const parts: { close(): unknown }[] = [];
const sockets = new Set<net.Socket>();
afterEach(async () => {
  sockets.clear();
  for (const part of parts.splice(0)) await part.close();
});

/** A mail server that greets and then answers each line by a script. */
async function server(script: string[]): Promise<{ port: number; said: string[] }> {
  const said: string[] = [];
  const listening = net.createServer((socket) => {
    const left = [...script];
    sockets.add(socket);
    socket.on('error', () => {});
    const answer = (): void => {
      const next = left.shift();
      if (next === undefined) return;
      if (next === 'close') socket.destroy();
      else socket.write(`${next}\r\n`);
    };
    answer();
    socket.on('data', (chunk) => {
      for (const line of chunk.toString().split('\r\n').filter(Boolean)) {
        said.push(line);
        answer();
      }
    });
  });
  await new Promise<void>((resolve) => listening.listen(0, '127.0.0.1', resolve));
  parts.push({ close: () => listening.close() });
  return { port: (listening.address() as net.AddressInfo).port, said };
}

/** The zone's exchangers, each at an address that leads to a port. */
async function ask(exchangers: [mx: string, port: number][], mailbox = MAILBOX) {
  const dns: DnsServer = await serveDns((name, type) => {
    const record = (value: string) => ({ name, type, ttl: 60, value });
    const at = exchangers.findIndex(([mx]) => mx.split(' ')[1] === name);
    const records =
      type === 'MX' && name === ZONE
        ? exchangers.map(([mx]) => record(mx))
        : type === 'A' && at >= 0
          ? [record(`192.0.2.${10 + at}`)]
          : [];
    return { rcode: 0, authoritative: true, records };
  });
  parts.push(dns);
  return askMailServers(
    {
      resolvers: [`127.0.0.1:${dns.port}`],
      map: exchangers.map(([, port], i) => `192.0.2.${10 + i}:25=127.0.0.1:${port}`),
      timeoutMs: 400,
    },
    ZONE,
    mailbox,
  );
}

const GOOD = ['220 hello', '250-mx\r\n250 SIZE 1000', '250 OK', '250 2.1.5 OK', '221 bye'];

it('goes as far as RCPT, says whom it asks for, and sends nothing', async () => {
  const { port, said } = await server(GOOD);
  const [dialogue] = await ask([['10 mx1.marsh-choir.example', port]]);
  expect(dialogue).toMatchObject({ exchanger: 'mx1.marsh-choir.example', stage: 'RCPT', code: 250 });
  expect(said.slice(0, 3)).toEqual(['EHLO [127.0.0.1]', 'MAIL FROM:<>', `RCPT TO:<${MAILBOX}>`]);
  expect(said.join('\n')).not.toContain('DATA');
});
it('asks the preferred one first, and the next where it does not take it', async () => {
  const [first, second] = [await server(['554 no service']), await server(GOOD)];
  const all = await ask([
    ['20 second.marsh-choir.example', second.port],
    ['10 first.marsh-choir.example', first.port],
  ]);
  expect(all.map(({ exchanger, stage, code }) => [exchanger, stage, code])).toEqual([
    ['first.marsh-choir.example', 'greeting', 554],
    ['second.marsh-choir.example', 'RCPT', 250],
  ]);
});
it.each<[string, string[], object]>([
  ['refuses the mailbox', [...GOOD.slice(0, 3), '550 5.1.1 no such user'], { stage: 'RCPT', code: 550 }],
  ['answers later', [...GOOD.slice(0, 3), '451 4.7.1 greylisted'], { stage: 'RCPT', code: 451 }],
  ['is silent', [], { error: 'no answer in time' }],
  ['hangs up', ['220 hi', 'close'], { error: 'the connection was closed' }],
  ['never ends its reply', [`220-${'x'.repeat(40_000)}`], { error: 'the reply does not end' }],
  ['says what is no reply', ['hello there', ''], { error: 'no answer in time' }],
])('a server that %s', async (_, script, expected) => {
  const { port } = await server(script);
  expect((await ask([['10 mx.marsh-choir.example', port]]))[0]).toMatchObject(expected);
});
it('a server that drips is left after a while', async () => {
  const { port } = await server([]);
  const dripping = setInterval(() => {
    for (const socket of sockets) socket.write('220-wait\r\n');
  }, 50);
  parts.push({ close: () => clearInterval(dripping) });
  expect((await ask([['10 mx.marsh-choir.example', port]]))[0]).toMatchObject({
    error: 'no answer in time',
  });
});
it('control characters of a reply do not come through', async () => {
  const { port } = await server([...GOOD.slice(0, 3), '550 5.1.1 \u001b[31mred']);
  expect((await ask([['10 mx.marsh-choir.example', port]]))[0]!.text).toBe('5.1.1  [31mred');
});
it.each(['info@x\r\nDATA', 'nobody', 'a b@x.example', '<x>@x.example'])(
  'a mailbox that is none is refused: %j',
  async (mailbox) => {
    await expect(ask([], mailbox)).rejects.toThrow(RangeError);
  },
);
it('a zone that takes no mail has no dialogue (RFC 7505)', async () => {
  expect(await ask([['0 ', 1]])).toEqual([]);
});
