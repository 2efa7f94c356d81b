/** The cut-over plan: applied to what is served it gives what is wanted, and its times hold for every cache. */
import { describe, expect, it } from 'vitest';
import type { ExpectedRecord } from '#core/facts/brief';
import type { DnsRecord } from '#core/facts/evidence';
import { evidence } from '#core/checks/example-evidence';
import { readZoneFile } from '#core/formats/zone-file/read';
import fc from '../../tests/property';
import {
  expiryOf,
  nsTtlOf,
  oldAddressesIn,
  planCutOver,
  servedBy,
  spreadOf,
  spreadOfMove,
  type CutOverInput,
  type CutOverLine,
  type Timing,
} from './cut-over';

const served = (name: string, type: string, value: string, ttl = 3600): DnsRecord => ({
  name,
  type,
  value,
  ttl,
});
const wanted = (name: string, type: string, value: string): ExpectedRecord => ({ name, type, value });
const plan = (more: Partial<CutOverInput>) =>
  planCutOver({ served: [], wanted: [], negativeTtl: 900, ...more });
const said = (more: Partial<CutOverInput>): string[] =>
  plan(more).lines.map(
    (l) => `${l.action} ${l.name} ${l.type} ${l.before.join('+')} > ${l.after.join('+')} in ${l.lasts}`,
  );

const OLD = [
  served('kites.example', 'A', '192.0.2.1', 86400),
  served('kites.example', 'AAAA', '2001:db8::1', 86400),
  served('www.kites.example', 'A', '192.0.2.1', 7200),
  served('kites.example', 'MX', '10 mail.kites.example.', 3600),
  served('kites.example', 'TXT', 'v=spf1 ip4:192.0.2.1 mx -all'),
  served('shop.kites.example', 'A', '192.0.2.9'),
];
const NEW = [
  wanted('kites.example', 'A', '192.0.2.80'),
  wanted('www.kites.example', 'CNAME', 'kites.host.example'),
  wanted('kites.example', 'TXT', 'host-verify=1'),
];

describe('the plan', () => {
  it('adds, changes, takes away and keeps: mail, texts and other names stay', () => {
    expect(said({ served: OLD, wanted: NEW })).toEqual([
      'add www.kites.example CNAME  > kites.host.example in 900',
      'change kites.example A 192.0.2.1 > 192.0.2.80 in 86400',
      'change kites.example TXT v=spf1 ip4:192.0.2.1 mx -all > host-verify=1+v=spf1 ip4:192.0.2.1 mx -all in 3600',
      'take away kites.example AAAA 2001:db8::1 >  in 86400',
      'take away www.kites.example A 192.0.2.1 >  in 7200',
      'keep kites.example MX 10 mail.kites.example > 10 mail.kites.example in 0',
      'keep shop.kites.example A 192.0.2.9 > 192.0.2.9 in 0',
    ]);
  });
  it('an IPv6 address that it takes away is no reason against it', () => {
    const { lines, conflicts } = plan({ served: OLD, wanted: NEW });
    expect(lines.find((l) => l.type === 'AAAA')!.action).toBe('take away');
    expect(conflicts).toEqual([]);
  });
  it('a line to paste never raises a TTL', () => {
    const short = [served('kites.example', 'A', '192.0.2.1', 60)];
    const { wanted: to, lowered } = plan({
      served: short,
      wanted: [wanted('kites.example', 'A', '192.0.2.80')],
    });
    expect([to, lowered]).toEqual([expect.stringMatching(/\s60\s/), expect.stringMatching(/\s60\s/)]);
  });
  it.each<[string, Partial<CutOverInput>, RegExp]>([
    [
      'a CNAME at the apex',
      { served: OLD, wanted: [wanted('kites.example', 'CNAME', 'x.host.example')] },
      /CNAME beside MX, TXT/,
    ],
    [
      'two CNAMEs',
      { wanted: [wanted('a.example', 'CNAME', 'x.example'), wanted('a.example', 'CNAME', 'y.example')] },
      /2 CNAMEs/,
    ],
    [
      'a CAA that forbids the new issuer',
      {
        served: [served('kites.example', 'CAA', '0 issue "old-ca.example"')],
        wanted: [wanted('www.kites.example', 'A', '192.0.2.80')],
        issuer: 'new-ca.example',
      },
      /CAA at kites\.example does not let new-ca\.example/,
    ],
    ['a wildcard', { hasWildcard: true }, /wildcard answers/],
  ])('%s', (_, input, conflict) => {
    expect(plan(input).conflicts.join(' ')).toMatch(conflict);
  });
  it('a CAA that lets the new issuer in is no conflict', () => {
    const input = {
      served: [served('kites.example', 'CAA', '0 issue "new-ca.example"')],
      wanted: [wanted('www.kites.example', 'A', '192.0.2.80')],
      issuer: 'new-ca.example',
    };
    expect(plan(input).conflicts).toEqual([]);
  });
  it('the way back is what stands there now, with its TTLs, and can be read', () => {
    const { back, wanted: to } = plan({ served: OLD, wanted: NEW });
    const read = (text: string) =>
      readZoneFile(text, '.').records.map((r) => `${r.name} ${r.ttl} ${r.type} ${r.value}`);
    expect(read(back)).toContain('kites.example 86400 A 192.0.2.1');
    expect(read(back)).toContain('www.kites.example 7200 A 192.0.2.1');
    expect(read(to)).toContain('kites.example 300 A 192.0.2.80');
    expect(readZoneFile(back, '.').errors).toEqual([]);
  });
  it('a text is the same however it is quoted and split, and is written in strings that are not too long', () => {
    const key = `v=DKIM1; p=${'A'.repeat(400)}`;
    const split = `"${key.slice(0, 255)}" "${key.slice(255)}"`;
    const name = 'tide._domainkey.kites.example';
    const input = {
      served: [served(name, 'TXT', split), served('_dmarc.kites.example', 'TXT', '"v=DMARC1; p=reject"')],
      wanted: [wanted(name, 'TXT', key), wanted('_dmarc.kites.example', 'TXT', 'v=DMARC1; p=reject')],
    };
    expect(plan(input).lines.map((l) => l.action)).toEqual(['keep', 'keep']);
    const { records, errors } = readZoneFile(plan({ wanted: [wanted(name, 'TXT', key)] }).wanted, '.');
    expect(errors).toEqual([]);
    expect(records[0]!.value).toBe(split);
  });
  it('a name of which only a text is wanted stays where it leads', () => {
    expect(said({ served: OLD.slice(0, 2), wanted: [wanted('kites.example', 'TXT', 'x=1')] })).toEqual([
      'add kites.example TXT  > x=1 in 900',
      'keep kites.example A 192.0.2.1 > 192.0.2.1 in 0',
      'keep kites.example AAAA 2001:db8::1 > 2001:db8::1 in 0',
    ]);
  });
  it('DMARC reports to a mailbox that moves are named, those elsewhere are not', () => {
    const dmarc = (to: string) => served('_dmarc.kites.example', 'TXT', `v=DMARC1; p=none; rua=mailto:${to}`);
    const moving = (to: string) =>
      plan({
        served: [served('kites.example', 'MX', '10 a.example'), dmarc(to)],
        wanted: [wanted('kites.example', 'MX', '10 b.example')],
      }).conflicts;
    expect(moving('d@kites.example!10m')).toEqual([
      'DMARC reports of _dmarc.kites.example go to d@kites.example, whose mailbox moves: let it exist at the new place first.',
    ]);
    expect(moving('d@reports.example')).toEqual([]);
    expect(plan({ served: [dmarc('d@kites.example')] }).conflicts).toEqual([]);
  });
  it('name servers that move take the whole zone with them, and keep their own NS', () => {
    const nameServers = { today: ['Old1.example.', 'old2.example'], wanted: ['new1.example'], nsTtl: 86_400 };
    const { move } = plan({
      served: [...OLD, served('kites.example', 'NS', 'old1.example.')],
      wanted: NEW,
      nameServers,
    });
    expect(move).toMatchObject({
      from: ['old1.example', 'old2.example'],
      to: ['new1.example'],
      nsTtl: 86_400,
    });
    const lines = readZoneFile(move!.zone, '.').records.map((r) => `${r.name} ${r.type} ${r.value}`);
    expect(lines).toContain('kites.example MX 10 mail.kites.example');
    expect(lines).toContain('kites.example A 192.0.2.80');
    expect(lines.some((l) => / NS /.test(l))).toBe(false);
    expect(plan({ nameServers: { ...nameServers, wanted: ['OLD1.example'] } }).move).toBeNull();
    expect(plan({ nameServers: { ...nameServers, today: [] } }).move).toBeNull();
  });
  it('a forward says from which hosts, and how long caches keep what they lead to today', () => {
    const { forward } = plan({
      served: OLD,
      forwarding: { hosts: ['kites.example', 'new.kites.example'], to: 'https://kites.host.example/' },
    });
    expect(forward).toEqual({
      to: 'https://kites.host.example/',
      hosts: [
        { host: 'kites.example', today: ['192.0.2.1', '2001:db8::1'], lasts: 86_400 },
        { host: 'new.kites.example', today: [], lasts: 900 },
      ],
    });
  });
  it.each<[string, Partial<CutOverInput>]>([
    [
      'an IPv6 address written otherwise',
      {
        served: [served('a.example', 'AAAA', '2001:db8:0:0::1')],
        wanted: [wanted('a.example', 'AAAA', '2001:DB8::1')],
      },
    ],
    [
      'a CAA with and without quotes (RFC 8659 4.1.1)',
      {
        served: [served('a.example', 'CAA', '0 issue "ca.example"')],
        wanted: [wanted('a.example', 'CAA', '0 issue ca.example')],
      },
    ],
    [
      'an alias that the operator flattens into its addresses',
      {
        served: [served('a.example', 'A', '192.0.2.11'), served('a.example', 'AAAA', '2001:db8::b')],
        wanted: [wanted('a.example', 'CNAME', 'Edge.host.example.')],
        aliases: { 'edge.host.example': ['192.0.2.10', '192.0.2.11', '2001:db8::b'] },
      },
    ],
    [
      'another address of the host’s range',
      {
        served: [served('a.example', 'A', '192.0.2.11')],
        wanted: [wanted('a.example', 'A', '192.0.2.10')],
        ranges: ['192.0.2.0/28'],
      },
    ],
  ])('%s is as wanted', (_, input) => {
    expect(new Set(plan(input).lines.map((l) => l.action))).toEqual(new Set(['keep']));
  });
  it.each<[string, Partial<CutOverInput>]>([
    ['an address beside the alias’s', { aliases: { 'edge.host.example': ['192.0.2.10'] } }],
    ['an alias of which nobody knows the addresses', {}],
  ])('%s is not', (_, input) => {
    const records = {
      served: [served('a.example', 'A', '192.0.2.10'), served('a.example', 'A', '192.0.2.11')],
      wanted: [wanted('a.example', 'CNAME', 'edge.host.example')],
    };
    expect(plan({ ...records, ...input }).lines.map((l) => l.action)).toEqual(['add', 'take away']);
  });
  it('same values in other spelling are kept', () => {
    expect(
      said({
        served: [served('WWW.kites.example.', 'CNAME', 'Kites.Host.example.')],
        wanted: [wanted('www.kites.example', 'CNAME', 'kites.host.example')],
      }),
    ).toEqual(['keep www.kites.example CNAME kites.host.example > kites.host.example in 0']);
  });
});

describe('generated zones', () => {
  const NAMES = ['kites.example', 'www.kites.example', 'shop.kites.example'];
  const VALUES: Record<string, (n: number) => string> = {
    A: (n) => `192.0.2.${n}`,
    AAAA: (n) => `2001:db8::${n}`,
    CNAME: (n) => `t${n}.host.example`,
    TXT: (n) => `token=${n}`,
    MX: (n) => `10 m${n}.mail.example`,
  };
  const record = fc
    .record({
      name: fc.constantFrom(...NAMES),
      type: fc.constantFrom(...Object.keys(VALUES)),
      n: fc.integer({ min: 1, max: 4 }),
      ttl: fc.integer({ min: 60, max: 86_400 }),
    })
    .map(({ name, type, n, ttl }) => served(name, type, VALUES[type]!(n), ttl));
  const zone = fc.array(record, { maxLength: 9 });
  it('the plan applied to what is served gives what is wanted, with mail and tokens intact', () => {
    const holds = fc.property(zone, zone, (now, then) => {
      const { lines } = planCutOver({ served: now, wanted: then, negativeTtl: 60 });
      const after = new Map(lines.map((l) => [`${l.name} ${l.type}`, new Set(l.after)]));
      const REACHING = ['A', 'AAAA', 'CNAME'];
      const asked = new Set(then.filter((r) => REACHING.includes(r.type)).map((r) => r.name));
      for (const { name, type, value } of then) expect(after.get(`${name} ${type}`)).toContain(value);
      for (const { name, type, value } of now) {
        const set = after.get(`${name} ${type}`)!;
        const isWanted = then.some((r) => r.name === name && r.type === type);
        // tokens always, mail unless other mail is wanted, and names that nobody asked for
        if (type === 'TXT' || (type === 'MX' && !isWanted) || (REACHING.includes(type) && !asked.has(name)))
          expect(set).toContain(value);
      }
      // a name that leads somewhere leads somewhere at every moment: before, and from the change on
      for (const name of new Set(now.filter((r) => REACHING.includes(r.type)).map((r) => r.name)))
        expect(lines.some((l) => l.name === name && REACHING.includes(l.type) && l.after.length)).toBe(true);
      // of what reaches a name that was asked for, nothing is left that is not wanted
      for (const l of lines)
        if (asked.has(l.name) && REACHING.includes(l.type))
          for (const value of l.after)
            expect(then.some((r) => r.name === l.name && r.type === l.type && r.value === value)).toBe(true);
    });
    fc.assert(holds, { numRuns: 400 });
  });
});

/** A cache that obeys TTLs: asked at some moments, it holds what it got until that has ended. */
function staleUntil(
  asks: readonly number[],
  answerAt: (at: number) => { isOld: boolean; ttl: number },
): number {
  let until = -Infinity;
  let isOld = false;
  let lastOld = -Infinity;
  for (const at of [...asks].sort((a, b) => a - b)) {
    if (at >= until) {
      const got = answerAt(at);
      until = at + 1000 * got.ttl;
      isOld = got.isOld;
    }
    if (isOld) lastOld = Math.max(lastOld, until);
  }
  return lastOld;
}

describe('times', () => {
  const HOUR = 3_600_000;
  // worked by hand
  it.each([
    ['a day’s TTL, changed now', spreadOf(86400, 0), 24],
    ['lowered a day before to five minutes', spreadOf(86400, 24 * HOUR, { at: 0, ttl: 300 }), 24 + 1 / 12],
    ['lowered an hour before only', spreadOf(86400, HOUR, { at: 0, ttl: 300 }), 24],
    ['lowered after the change: too late', spreadOf(86400, 0, { at: HOUR, ttl: 300 }), 24],
    ['raised before', spreadOf(300, HOUR, { at: 0, ttl: 7200 }), 3],
  ])('%s', (_, { last }, hours) => {
    expect(last / HOUR).toBeCloseTo(hours, 6);
  });
  it.each([
    ['NS for a day, records for an hour', spreadOfMove(3600, 86_400, 0), 25],
    ['records lowered in time', spreadOfMove(3600, 86_400, 4 * HOUR, { at: 0, ttl: 300 }), 28 + 1 / 12],
    ['servers that stay', spreadOfMove(3600, 0, 0), 1],
  ])('name servers moved: %s', (_, { last }, hours) => {
    expect(last / HOUR).toBeCloseTo(hours, 6);
  });
  it('no hierarchy of caches that obey TTLs holds the old answer longer after a move of name servers', () => {
    const seconds = (max: number) => fc.integer({ min: 0, max }).map((s) => 1000 * s);
    const ttl = fc.integer({ min: 60, max: 7200 });
    const asks = fc.array(seconds(40_000), { minLength: 1, maxLength: 60 });
    const holds = fc.property(ttl, ttl, seconds(20_000), asks, (recordTtl, nsTtl, movedAt, moments) => {
      const { last } = spreadOfMove(recordTtl, nsTtl, movedAt);
      // a cache remembers whom to ask, and what it heard; each for its own TTL
      let serversUntil = -Infinity;
      let isOldServer = false;
      const answerAt = (at: number) => {
        if (at >= serversUntil) {
          isOldServer = at < movedAt;
          serversUntil = at + 1000 * nsTtl;
        }
        return { isOld: isOldServer, ttl: recordTtl };
      };
      expect(staleUntil(moments, answerAt)).toBeLessThanOrEqual(last);
    });
    fc.assert(holds, { numRuns: 400 });
    // and the worst of them: whom to ask just before the move, what to hear just before that is forgotten
    const worst = [0 - 1, 1000 * 600 - 2];
    let until = -Infinity;
    let isOld = false;
    const end = staleUntil(worst, (at) => {
      if (at >= until) {
        isOld = at < 0;
        until = at + 1000 * 600;
      }
      return { isOld, ttl: 300 };
    });
    expect(spreadOfMove(300, 600, 0).last - end).toBeLessThanOrEqual(300_001);
  });
  it('no cache that obeys TTLs holds the old answer longer, and some nearly as long', () => {
    const moment = fc.integer({ min: 0, max: 20_000 }).map((seconds) => 1000 * seconds);
    const lowering = fc.option(fc.record({ at: moment, ttl: fc.integer({ min: 30, max: 630 }) }), {
      nil: undefined,
    });
    const caches = fc.array(fc.array(moment, { maxLength: 30 }), { maxLength: 30 });
    const ttls = fc.integer({ min: 60, max: 7260 });
    const holds = fc.property(ttls, moment, lowering, caches, (ttl, changedAt, lowered, asks) => {
      const { last } = spreadOf(ttl, changedAt, lowered);
      const answerAt = (at: number) => ({
        isOld: at < changedAt,
        ttl: lowered && at >= lowered.at ? lowered.ttl : ttl,
      });
      const ends = asks.map((moments) => staleUntil(moments, answerAt));
      // and those that ask at the worst moments
      const worst = [changedAt - 1, ...(lowered ? [lowered.at - 1] : [])].map((at) =>
        staleUntil([at], answerAt),
      );
      for (const end of [...ends, ...worst]) expect(end).toBeLessThanOrEqual(last);
      const longest = Math.max(...worst);
      if (longest > changedAt) expect(last - longest).toBeLessThanOrEqual(1);
    });
    fc.assert(holds, { numRuns: 300 });
  });
});

it('what is served is read from the zone’s own servers, with the negative TTL of RFC 2308', () => {
  const { served: records, negativeTtl, hasWildcard } = servedBy(evidence().dns);
  expect(records).toContainEqual(served('marsh-choir.example', 'A', '192.0.2.10'));
  expect(records.map((r) => r.type)).not.toContain('SOA');
  expect(negativeTtl).toBe(3600);
  expect(hasWildcard).toBe(false);
});

it('how long caches may ask the servers of today is the longest TTL of their NS', () => {
  const { dns } = evidence();
  const ttls = dns.answers
    .flatMap((a) => [...a.records, ...(a.authority ?? [])])
    .filter((r) => r.type === 'NS' && r.name === dns.zone)
    .map((r) => r.ttl);
  expect(nsTtlOf(dns)).toBe(Math.max(0, ...ttls));
});

describe('when old answers expire', () => {
  const HOUR = 3_600_000;
  const line = (more: Partial<CutOverLine> = {}) => ({
    name: 'kites.example',
    type: 'A',
    ttl: 86_400,
    lasts: 86_400,
    ...more,
  });
  it.each<[string, ReturnType<typeof line>[], Omit<Timing, 'changedAt'>, number, string]>([
    ['as it is', [line()], { nsTtl: 0 }, 24, 'A kites.example: TTL 86400 s after the change'],
    [
      'lowered in time',
      [line({ ttl: 300, lasts: 300 })],
      { nsTtl: 0, lowered: { at: -30 * HOUR, ttl: 300, oldTtl: 86_400 } },
      300 / 3600,
      'A kites.example: TTL 300 s after the change',
    ],
    [
      'lowered too late',
      [line({ ttl: 300, lasts: 300 })],
      { nsTtl: 0, lowered: { at: -10 * HOUR, ttl: 300, oldTtl: 86_400 } },
      14,
      'A kites.example: caches filled before the TTL was lowered keep it 86400 s from then',
    ],
    [
      'a name that is new',
      [line({ ttl: undefined, lasts: 3600 })],
      { nsTtl: 0, lowered: { at: -10 * HOUR, ttl: 300, oldTtl: 86_400 } },
      1,
      'A kites.example: that it is missing is remembered 3600 s after the change',
    ],
    [
      'name servers that move',
      [line({ lasts: 3600 })],
      { nsTtl: 86_400 },
      25,
      'A kites.example: TTL 3600 s after the old name servers are forgotten (86400 s)',
    ],
    ['nothing changes', [], { nsTtl: 0 }, 0, 'nothing old is kept by caches'],
  ])('%s', (_, lines, timing, hours, how) => {
    expect(expiryOf(lines, { changedAt: 0, ...timing })).toEqual({ at: hours * HOUR, how });
  });
});

it('what still leads to an old address is named with its record', () => {
  const back =
    'kites.example. 300 IN A 192.0.2.1\nkites.example. 300 IN AAAA 2001:db8::1\nkites.example. 300 IN MX 10 m.';
  expect(oldAddressesIn(back)).toEqual(['192.0.2.1', '2001:db8::1']);
});
