/** DNS messages against a second library: dns2 (npm) writes what we read, and reads what we ask. */
import dns2 from 'dns2';
import dgram from 'node:dgram';
import { afterEach, describe, expect, it } from 'vitest';
import { ask, decodeAnswer } from '#probe/dns/client';

const { Packet } = dns2;
interface Dns2Packet {
  header: { id: number; qr: number; aa: number; rd: number; rcode: number };
  questions: { name: string; type: number; class: number }[];
  answers: Record<string, unknown>[];
  toBuffer(): Buffer;
}
const make = Packet as unknown as {
  new (): Dns2Packet;
  parse(b: Buffer): Dns2Packet;
  TYPE: Record<string, number>;
  CLASS: { IN: number };
  Question: new (q: object) => never;
};

const sockets: dgram.Socket[] = [];
afterEach(() => {
  for (const s of sockets.splice(0)) s.close();
});

function written(type: string, answers: Record<string, unknown>[], rcode = 0): Buffer {
  const p = new make();
  p.header.id = 7;
  p.header.qr = 1;
  p.header.aa = 1;
  p.header.rcode = rcode;
  p.questions.push({ name: 'a.example', type: make.TYPE[type]!, class: make.CLASS.IN });
  p.answers.push(
    ...answers.map((a) => ({
      name: 'a.example',
      type: make.TYPE[type]!,
      class: make.CLASS.IN,
      ttl: 300,
      ...a,
    })),
  );
  return p.toBuffer();
}

/** One answer through our whole client. */
async function asked(type: string, answers: Record<string, unknown>[]): Promise<string[]> {
  const socket = dgram.createSocket('udp4');
  sockets.push(socket);
  socket.on('message', (bytes, from) => {
    const query = make.parse(bytes);
    const out = written(type, answers);
    out.writeUInt16BE(query.header.id, 0);
    socket.send(out, from.port, from.address);
  });
  await new Promise<void>((r) => socket.bind(0, '127.0.0.1', r));
  const answer = await ask(
    { address: '127.0.0.1', port: socket.address().port },
    { name: 'a.example', type },
    { recursive: true, timeoutMs: 1000, id: () => 4711, now: () => 0 },
  );
  return answer.records.map((r) => `${r.ttl} ${r.type} ${r.value}`);
}

describe('answers that dns2 wrote', () => {
  it.each([
    ['A', [{ address: '192.0.2.1' }, { address: '192.0.2.2' }], ['300 A 192.0.2.1', '300 A 192.0.2.2']],
    ['AAAA', [{ address: '2001:db8:0:0:0:0:0:1' }], ['300 AAAA 2001:db8::1']],
    ['CNAME', [{ domain: 'b.example' }], ['300 CNAME b.example']],
    ['NS', [{ ns: 'ns1.example' }], ['300 NS ns1.example']],
    ['MX', [{ exchange: 'mail.example', priority: 10 }], ['300 MX 10 mail.example']],
    ['TXT', [{ data: 'v=spf1 -all' }], ['300 TXT "v=spf1 -all"']],
    [
      'SOA',
      [
        {
          primary: 'ns1.example',
          admin: 'host.example',
          serial: 5,
          refresh: 1,
          retry: 2,
          expiration: 3,
          minimum: 4,
        },
      ],
      ['300 SOA ns1.example host.example 5 1 2 3 4'],
    ],
    ['CAA', [{ flags: 0, tag: 'issue', value: 'ca.example' }], ['300 CAA 0 issue "ca.example"']],
    ['SRV', [{ priority: 1, weight: 2, port: 443, target: 'b.example' }], ['300 SRV 1 2 443 b.example']],
  ])('%s', async (type, answers, records) => {
    expect(await asked(type, answers as Record<string, unknown>[])).toEqual(records);
  });
  it('flags and codes', () => {
    expect(decodeAnswer(written('A', [], 3), { name: 'a.example', type: 'A' }, 7)).toMatchObject({ code: 3 });
  });
});

describe('questions of ours', () => {
  it('dns2 reads them: one question, recursion wanted of resolvers only', async () => {
    for (const recursive of [true, false]) {
      const got = new Promise<Dns2Packet>((resolve) => {
        const s = dgram.createSocket('udp4');
        sockets.push(s);
        s.on('message', (b) => resolve(make.parse(b)));
        s.bind(0, '127.0.0.1', () => {
          void ask(
            { address: '127.0.0.1', port: s.address().port },
            { name: 'www.a.example', type: 'TXT' },
            { recursive, timeoutMs: 200, id: () => 99, now: () => 0 },
          );
        });
      });
      const query = await got;
      expect(query.header).toMatchObject({ id: 99, qr: 0, rd: recursive ? 1 : 0 });
      expect(query.questions).toEqual([
        expect.objectContaining({ name: 'www.a.example', type: make.TYPE.TXT, class: 1 }),
      ]);
    }
  });
});
