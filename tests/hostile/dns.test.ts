/** Name servers that lie, loop, flood and stay silent, seen through a whole audit. */
import type { Answer, DecodedPacket } from 'dns-packet';
import { afterEach, describe, expect, it } from 'vitest';
import type { Evidence } from '#core/facts/evidence';
import { collect } from '#probe/collect';
import { dnsReply, LocalServers } from '../local-servers';

const servers = new LocalServers();
afterEach(() => servers.close());

const a = (name: string, data: string): Answer => ({ type: 'A', name, ttl: 60, class: 'IN', data });
const alias = (name: string, data: string): Answer => ({ type: 'CNAME', name, ttl: 60, class: 'IN', data });
const typeOf = (q: DecodedPacket) => q.questions![0]!.type as string;
const nameOf = (q: DecodedPacket) => q.questions![0]!.name;

/** For servers whose lies are waited out. */
const BRIEF_MS = 1500;

/** Audits a site whose resolver answers so; its pages are served all the same when an address is given. */
async function auditWith(
  answer: (q: DecodedPacket) => Buffer | Buffer[] | null,
  timeoutMs = 10_000,
): Promise<Evidence> {
  const url = await servers.http((_, res) => {
    res.setHeader('content-type', 'text/html');
    res.end('<!doctype html><title>Here</title><p>words');
  });
  return collect({
    url: 'http://site.example/',
    kind: 'live',
    brief: { contactEmail: 'hello@site.example' },
    resolvers: [await servers.dns(answer)],
    map: [`127.0.0.5=${new URL(url).host}`, '127.0.0.5:443=127.0.0.1:9', `127.0.0.5:80=${new URL(url).host}`],
    timeoutMs,
    retryPauseMs: 5,
  });
}
const asked = (e: Evidence, type: string) =>
  e.dns.answers.find((x) => x.name === 'site.example' && x.type === type && !x.unchecked)!;
const home = (e: Evidence) => e.pages[0]!;
const right = (q: DecodedPacket) =>
  dnsReply(q, typeOf(q) === 'A' && nameOf(q) === 'site.example' ? [a('site.example', '127.0.0.5')] : []);

describe('a resolver that', () => {
  it('is right lets the audit go on (the others of this file differ in one thing)', async () => {
    const e = await auditWith(right);
    expect(home(e).facts?.titles[0]?.text).toBe('Here');
  });
  it('stays silent', async () => {
    const e = await auditWith(() => null, 300);
    expect(home(e).chain.error?.code).toMatch(/dns|timeout/);
    expect(asked(e, 'A').rcode).toBe('NONE');
  });
  it('answers with another id', async () => {
    const e = await auditWith(
      (q) => dnsReply(q, [a('site.example', '127.0.0.5')], { id: (q.id! + 1) % 65536 }),
      BRIEF_MS,
    );
    expect(asked(e, 'A').error).toContain('another id');
  });
  it('answers another question', async () => {
    const e = await auditWith(
      (q) =>
        dnsReply(q, [a('evil.example', '127.0.0.5')], { questions: [{ type: 'A', name: 'evil.example' }] }),
      BRIEF_MS,
    );
    expect(asked(e, 'A').rcode).toBe('NONE');
  });
  it('slips records of another name in', async () => {
    const e = await auditWith((q) => dnsReply(q, typeOf(q) === 'A' ? [a('other.example', '127.0.0.5')] : []));
    expect(JSON.stringify(e.dns.answers.map((x) => x.records))).toContain('other.example');
    expect(home(e).facts).toBeUndefined();
  });
  it('sends bytes that are no DNS', async () => {
    const e = await auditWith(() => Buffer.from('HTTP/1.1 200 OK'), BRIEF_MS);
    expect(asked(e, 'A').error).toContain('none');
  });
  it('sends nothing but a header', async () => {
    const e = await auditWith((q) => {
      const b = Buffer.alloc(12);
      b.writeUInt16BE(q.id!, 0);
      b.writeUInt16BE(0x8180, 2);
      return b;
    }, BRIEF_MS);
    expect(asked(e, 'A').rcode).toBe('NONE');
  });
  it('claims 65,535 records', async () => {
    const e = await auditWith((q) => {
      const b = dnsReply(q, []);
      b.writeUInt16BE(65_535, 6);
      return b;
    }, BRIEF_MS);
    expect(asked(e, 'A').rcode).toBe('NONE');
  });
  it('compresses in a circle', async () => {
    const e = await auditWith((q) => {
      const b = Buffer.concat([dnsReply(q, []).subarray(0, 12), Buffer.from([0xc0, 12, 0, 1, 0, 1])]);
      return b;
    }, BRIEF_MS);
    expect(asked(e, 'A').rcode).toBe('NONE');
  });
  it('sends aliases in a circle', async () => {
    const e = await auditWith((q) =>
      dnsReply(q, [alias(nameOf(q), nameOf(q).startsWith('b.') ? 'site.example' : 'b.site.example')]),
    );
    expect(home(e).chain.error?.code).toBe('dns');
  });
  it('sends an alias of itself', async () => {
    const e = await auditWith((q) => dnsReply(q, [alias(nameOf(q), nameOf(q))]));
    expect(home(e).chain.error?.code).toBe('dns');
  });
  it('sends aliases without end', async () => {
    let n = 0;
    const e = await auditWith((q) =>
      dnsReply(
        q,
        typeOf(q) === 'A' || typeOf(q) === 'AAAA' ? [alias(nameOf(q), `n${++n}.site.example`)] : [],
      ),
    );
    expect(home(e).chain.error?.code).toBe('dns');
  });
  it('sends huge texts', async () => {
    const e = await auditWith((q) =>
      typeOf(q) === 'TXT'
        ? dnsReply(q, [
            {
              type: 'TXT',
              name: nameOf(q),
              ttl: 1,
              class: 'IN',
              data: Array.from({ length: 200 }, () => 'v=spf1 include:a.example '.repeat(10)),
            },
          ])
        : right(q),
    );
    expect(asked(e, 'TXT').records[0]!.value.length).toBeLessThanOrEqual(8192);
    expect(home(e).facts).toBeDefined();
  });
  it('sends texts with control characters and quotes', async () => {
    const e = await auditWith((q) =>
      typeOf(q) === 'TXT'
        ? dnsReply(q, [{ type: 'TXT', name: nameOf(q), ttl: 1, class: 'IN', data: 'a"b\\c\n\0d' }])
        : right(q),
    );
    expect(asked(e, 'TXT').records[0]!.value).toBe('"a\\"b\\\\c\\010\\000d"');
  });
  it('includes SPF records in a circle', async () => {
    const e = await auditWith((q) =>
      typeOf(q) === 'TXT'
        ? dnsReply(q, [
            {
              type: 'TXT',
              name: nameOf(q),
              ttl: 1,
              class: 'IN',
              data: `v=spf1 include:${nameOf(q) === 'site.example' ? 'b' : ''}site.example -all`,
            },
          ])
        : right(q),
    );
    expect(
      e.dns.answers.filter((x) => x.type === 'TXT' && x.name.endsWith('site.example')).length,
    ).toBeLessThan(30);
  });
  it('includes SPF records without end', async () => {
    let n = 0;
    const e = await auditWith((q) =>
      typeOf(q) === 'TXT'
        ? dnsReply(q, [
            {
              type: 'TXT',
              name: nameOf(q),
              ttl: 1,
              class: 'IN',
              data: Array.from({ length: 8 }, () => `include:s${++n}.example`)
                .join(' ')
                .replace(/^/, 'v=spf1 '),
            },
          ])
        : right(q),
    );
    expect(e.dns.answers.filter((x) => x.type === 'TXT').length).toBeLessThan(40);
  });
  it('truncates over UDP and does not answer over TCP', async () => {
    const e = await auditWith(
      (q) => (typeOf(q) === 'TXT' ? dnsReply(q, [], { flags: 0x280 }) : right(q)),
      3000,
    );
    expect(asked(e, 'TXT').rcode).toBe('NONE');
    expect(home(e).facts).toBeDefined();
  });
  it.each([
    [2, 'SERVFAIL'],
    [5, 'REFUSED'],
    [15, 'RCODE15'],
  ])('answers every question with code %i', async (rcode, name) => {
    const e = await auditWith((q) => dnsReply(q, [], { rcode }));
    expect(asked(e, 'A').rcode).toBe(name);
    expect(home(e).chain.error?.code).toBe('dns');
  });
  it('changes its answer between the check and the connection', async () => {
    let n = 0;
    const e = await auditWith((q) =>
      dnsReply(
        q,
        typeOf(q) === 'A' && nameOf(q) === 'site.example'
          ? [a('site.example', n++ ? '127.0.0.1' : '10.0.0.1')]
          : [],
      ),
    );
    expect(home(e).chain.error?.code).toBe('forbidden-address');
  });
  it('leads into the machine', async () => {
    const e = await auditWith((q) => dnsReply(q, typeOf(q) === 'A' ? [a(nameOf(q), '169.254.169.254')] : []));
    expect(home(e).chain.error?.code).toBe('forbidden-address');
  });
});

describe('name servers of the zone that', () => {
  it('stand at private addresses are not asked, and that is said', async () => {
    const e = await auditWith((q) =>
      typeOf(q) === 'NS' && nameOf(q) === 'site.example'
        ? dnsReply(q, [{ type: 'NS', name: nameOf(q), ttl: 1, class: 'IN', data: 'ns.site.example' }])
        : nameOf(q) === 'ns.site.example' && typeOf(q) === 'A'
          ? dnsReply(q, [a('ns.site.example', '192.168.1.1')])
          : right(q),
    );
    for (const x of e.dns.answers.filter((x) => x.role === 'authority')) expect(x.error).toContain('private');
    expect(home(e).facts).toBeDefined();
  });
  it('are a hundred are asked up to a limit', async () => {
    const e = await auditWith((q) =>
      typeOf(q) === 'NS'
        ? dnsReply(
            q,
            Array.from({ length: 60 }, (_, i) => ({
              type: 'NS' as const,
              name: nameOf(q),
              ttl: 1,
              class: 'IN' as const,
              data: `n${i}.x.example`,
            })),
          )
        : right(q),
    );
    expect(e.dns.nameServers.length).toBeLessThanOrEqual(8);
  });
  it('have names that are no names', async () => {
    const e = await auditWith((q) =>
      typeOf(q) === 'MX'
        ? dnsReply(q, [
            {
              type: 'MX',
              name: nameOf(q),
              ttl: 1,
              class: 'IN',
              data: { preference: 1, exchange: `${'x'.repeat(63)}.`.repeat(3) + 'example' },
            },
          ])
        : right(q),
    );
    expect(home(e).facts).toBeDefined();
  });
});
