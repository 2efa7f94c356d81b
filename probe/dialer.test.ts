/** Resolving and connecting, against name servers that answer, lie, stay silent or go in circles. */
import { afterEach, describe, expect, it } from 'vitest';
import type { Answer, DecodedPacket } from 'dns-packet';
import { Dialer } from './dialer';
import { dnsReply, LocalServers } from '../tests/local-servers';

const servers = new LocalServers();
afterEach(() => servers.close());

const a = (name: string, data: string, ttl = 60): Answer => ({ type: 'A', name, ttl, class: 'IN', data });
const alias = (name: string, data: string): Answer => ({ type: 'CNAME', name, ttl: 60, class: 'IN', data });
type Answering = (q: DecodedPacket) => Buffer | Buffer[] | null;
const waiting = async (timeoutMs: number, ...answer: Answering[]) =>
  new Dialer({
    resolvers: await Promise.all(answer.map((x) => servers.dns(x))),
    allowPrivate: true,
    timeoutMs,
  });
/** Waits long, for a busy machine; where only time ends it, `waiting` is told how long. */
const dialer = (...answer: Answering[]) => waiting(8000, ...answer);
const typeOf = (q: DecodedPacket) => q.questions![0]!.type;
const nameOf = (q: DecodedPacket) => q.questions![0]!.name;

describe('asking a resolver', () => {
  it('keeps rcode, flags, TTL and values; the same question is put once', async () => {
    let asked = 0;
    const d = await dialer((q) => {
      asked++;
      return dnsReply(q, typeOf(q) === 'A' ? [a('a.example', '192.0.2.1', 77)] : [], { flags: 0xa0 });
    });
    const [one, two] = await Promise.all([d.lookup('a.example', 'A'), d.lookup('A.example', 'A')]);
    expect(one).toMatchObject({
      rcode: 'NOERROR',
      authoritative: false,
      authenticated: true,
      transport: 'udp',
      records: [{ name: 'a.example', type: 'A', ttl: 77, value: '192.0.2.1' }],
    });
    expect(two).toBe(one);
    expect(asked).toBe(1);
  });
  it.each([
    [0, 'NOERROR'],
    [2, 'SERVFAIL'],
    [3, 'NXDOMAIN'],
    [5, 'REFUSED'],
    [9, 'RCODE9'],
  ])('rcode %s is %s', async (rcode, name) => {
    expect((await (await dialer((q) => dnsReply(q, [], { rcode }))).lookup('a.example', 'MX')).rcode).toBe(
      name,
    );
  });
  it('answers with another id or question are passed over for the right one', async () => {
    const d = await dialer((q) => [
      dnsReply(q, [a('a.example', '192.0.2.66')], { id: (q.id! + 1) % 65536 }),
      dnsReply(q, [a('b.example', '192.0.2.67')], { questions: [{ type: 'A', name: 'b.example' }] }),
      Buffer.from('nonsense'),
      dnsReply(q, [a('a.example', '192.0.2.1')]),
    ]);
    expect((await d.lookup('a.example', 'A')).records.map((r) => r.value)).toEqual(['192.0.2.1']);
  });
  it('silence and lies alone end as no answer, with the reason', async () => {
    expect(await (await waiting(400, () => null)).lookup('a.example', 'A')).toMatchObject({
      rcode: 'NONE',
      error: 'no answer in time',
    });
    expect(
      await (
        await waiting(400, (q) => dnsReply(q, [], { id: (q.id! + 1) % 65536 }))
      ).lookup('a.example', 'A'),
    ).toMatchObject({ rcode: 'NONE', error: expect.stringContaining('another id') as string });
  });
  it('FORMERR is asked again without EDNS', async () => {
    const seen: boolean[] = [];
    const d = await dialer((q) => {
      const edns = (q.additionals ?? []).some((x) => x.type === 'OPT');
      seen.push(edns);
      return dnsReply(q, edns ? [] : [a('a.example', '192.0.2.1')], { rcode: edns ? 1 : 0 });
    });
    expect((await d.lookup('a.example', 'A')).records).toHaveLength(1);
    expect(seen).toEqual([true, false]);
  });
  it('a second resolver is asked when the first fails, not when it says that there is nothing', async () => {
    let second = 0;
    const good = (q: DecodedPacket) => {
      second++;
      return dnsReply(q, [a('a.example', '192.0.2.2')]);
    };
    expect(
      (await (await dialer((q) => dnsReply(q, [], { rcode: 2 }), good)).lookup('a.example', 'A')).records[0]!
        .value,
    ).toBe('192.0.2.2');
    expect(
      (await (await dialer((q) => dnsReply(q, [], { rcode: 3 }), good)).lookup('a.example', 'A')).rcode,
    ).toBe('NXDOMAIN');
    expect(second).toBe(1);
  });
  it('nobody listening is told', async () => {
    expect(
      (await new Dialer({ resolvers: ['127.0.0.1:9'], timeoutMs: 400 }).lookup('a.example', 'A')).error,
    ).toContain('refused');
  });
});

describe('resolving', () => {
  it('follows aliases, also where the resolver does not', async () => {
    const d = await dialer((q) =>
      dnsReply(
        q,
        nameOf(q) === 'a.example'
          ? [alias('a.example', 'b.example')]
          : typeOf(q) === 'A'
            ? [a('b.example', '192.0.2.3')]
            : [],
      ),
    );
    expect(await d.resolve('a.example')).toEqual(['192.0.2.3']);
  });
  it('aliases in a circle end', async () => {
    await expect(
      (
        await dialer((q) =>
          dnsReply(q, [alias(nameOf(q), nameOf(q) === 'a.example' ? 'b.example' : 'a.example')]),
        )
      ).resolve('a.example'),
    ).rejects.toMatchObject({ code: 'dns' });
  });
  it('no name, no address and no answer are three things', async () => {
    await expect(
      (await dialer((q) => dnsReply(q, [], { rcode: 3 }))).resolve('a.example'),
    ).rejects.toMatchObject({ code: 'no-name' });
    await expect((await dialer((q) => dnsReply(q, []))).resolve('a.example')).rejects.toMatchObject({
      code: 'no-address',
    });
    await expect(
      (await dialer((q) => dnsReply(q, [], { rcode: 2 }))).resolve('a.example'),
    ).rejects.toMatchObject({ code: 'dns' });
  });
});

describe('connecting', () => {
  it('goes on to the next address when one refuses', async () => {
    const port = await servers.tcp((s) => s.end('hello'));
    const d = await dialer((q) =>
      dnsReply(q, typeOf(q) === 'A' ? [a('a.example', '127.0.0.2'), a('a.example', '127.0.0.1')] : []),
    );
    const { socket, address, timing } = await d.connect('a.example', port);
    expect(address).toBe(`127.0.0.1:${port}`);
    expect(timing.connect).toBeGreaterThanOrEqual(0);
    socket.destroy();
  });
  it('a mapped host needs no name server and may be private; others may not', async () => {
    const port = await servers.tcp(() => {});
    const d = new Dialer({
      resolvers: ['127.0.0.1:9'],
      map: [`mapped.example:443=127.0.0.1:${port}`],
      timeoutMs: 400,
    });
    const { socket } = await d.connect('mapped.example', 443);
    socket.destroy();
    await expect(d.connect('127.0.0.1', port)).rejects.toMatchObject({
      code: 'forbidden-address',
      message: expect.stringContaining('loopback') as string,
    });
    await expect(d.connect('[::1]', port)).rejects.toMatchObject({ code: 'forbidden-address' });
  });
  it('an authority at a forbidden address is an answer with the reason, not a failure of the audit', async () => {
    const d = new Dialer({ resolvers: ['127.0.0.1:9'] });
    expect(await d.askAuthority('ns1.example', '10.0.0.1', 'a.example', 'A')).toMatchObject({
      role: 'authority',
      rcode: 'NONE',
      error: expect.stringContaining('private') as string,
    });
    expect(d.answers).toHaveLength(1);
  });
  it('refuses resolvers and rules it cannot read', () => {
    expect(() => new Dialer({ resolvers: ['127.0.0.1:99999'] })).toThrow(RangeError);
    expect(() => new Dialer({ map: ['x'] })).toThrow(RangeError);
  });
});
