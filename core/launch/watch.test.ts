/** The watch: who has the new, whether it holds, and the likely reason where it does not. */
import { describe, expect, it } from 'vitest';
import { extractPage } from '#core/extract/html';
import { showsOf } from './landing';
import { planCutOver } from './cut-over';
import {
  goalOf,
  pauseAfter,
  watchChanges,
  watchStanding,
  type SeenAddress,
  type SeenHost,
  type SeenServer,
  type WatchGoal,
  type WatchSeen,
  type WatchStanding,
} from './watch';

const D = 'tram.example';
const HOUR = 3_600_000;
const goal: WatchGoal = {
  lines: [{ name: D, type: 'A', before: ['192.0.2.77'], after: ['192.0.2.20'], lasts: 3600 }],
  nameServers: [],
  nsTtl: 0,
  hosts: [D, `www.${D}`],
  mail: [`10 mail.${D}`],
};
const server = (
  kind: SeenServer['kind'],
  name: string,
  values: string[],
  more: { ttl?: number; error?: string } = {},
): SeenServer => ({ kind, name, answers: [{ name: D, type: 'A', values, ttl: 60, ...more }] });
const NEW = ['192.0.2.20'];
const OLD = ['192.0.2.77'];
const address = (more: Partial<SeenAddress> = {}): SeenAddress => ({
  address: NEW[0]!,
  shows: 'site',
  isCovered: true,
  ...more,
});
const host = (name: string, more: Partial<SeenHost> = {}): SeenHost => ({
  host: name,
  shows: 'site',
  end: `https://${D}/`,
  addresses: [address({ shows: more.shows ?? 'site' })],
  ...more,
});
const GOOD: WatchSeen = {
  at: HOUR,
  servers: [server('authority', 'ns1', NEW), server('authority', 'ns2', NEW), server('resolver', 'r1', NEW)],
  hosts: [host(D), host(`www.${D}`)],
  atNew: { ...host(D), address: '192.0.2.20' },
  mail: [`10 mail.${D}.`],
};
const look = (change: Partial<WatchSeen> = {}, before: WatchStanding | null = null, begunAt = 0) =>
  watchStanding(goal, { ...GOOD, ...change }, before, begunAt);
const authorities = (first: string[], second: string[]): SeenServer[] => [
  server('authority', 'ns1', first),
  server('authority', 'ns2', second),
  server('resolver', 'r1', OLD),
];
const OLD_HOSTS = [host(D, { shows: 'old site' }), host(`www.${D}`, { shows: 'old site' })];

describe('the verdict', () => {
  it('holds when every server, resolver, host and mail is as it is to be', () => {
    expect(look()).toMatchObject({ verdict: 'holds', reasons: [], heldAt: HOUR, changedAt: HOUR });
  });
  it.each<[string, Partial<WatchSeen>, RegExp]>([
    [
      'set at one end only: the host does not know it',
      { hosts: [host(D, { shows: 'unknown name', title: 'No such site' })] },
      /^Set at the DNS operator, not told to the host: it does not know tram\.example \(“No such site”\)\.$/,
    ],
    [
      'the other end only: the operator was not told',
      { servers: authorities(OLD, OLD), hosts: OLD_HOSTS },
      /^Told to the host, not set at the DNS operator: 192\.0\.2\.20 shows the site/,
    ],
    [
      'neither end',
      {
        servers: authorities(OLD, OLD),
        hosts: OLD_HOSTS,
        atNew: { ...host(D, { shows: 'unknown name' }), address: '192.0.2.20' },
      },
      /^Not changed at the DNS operator: ns1 and ns2 give A tram\.example: 192\.0\.2\.77\.$/,
    ],
    [
      'half of the servers',
      { servers: authorities(NEW, OLD) },
      /^Half of the servers: ns1 has the new records, but ns2 gives A tram\.example: 192\.0\.2\.77\./,
    ],
    ['a parking page', { hosts: [host(D, { shows: 'parking page' })] }, /parking page/],
    ['a holding page', { hosts: [host(D, { shows: 'holding page' })] }, /still shows the holding page/],
    [
      'no certificate',
      {
        hosts: [
          host(D),
          host(`www.${D}`, { addresses: [address({ isCovered: false, tlsError: 'ALTNAME' })] }),
        ],
      },
      /^No valid certificate for www\.tram\.example: ALTNAME at 192\.0\.2\.20\.$/,
    ],
    [
      'another host that does not lead to the preferred one',
      { hosts: [host(D), host(`www.${D}`, { end: `https://www.${D}/` })] },
      /^www\.tram\.example: ends at/,
    ],
    [
      'caches',
      { servers: [...authorities(NEW, NEW)], hosts: OLD_HOSTS },
      /^Caches still hold the old answer: r1\.$/,
    ],
    ['mail that went astray', { mail: ['10 other.example'] }, /^Mail does not go where it went/],
    [
      'a server that never answers',
      {
        servers: [
          server('authority', 'ns1', NEW),
          server('authority', 'ns2', [], { error: 'no answer in time' }),
        ],
      },
      /^ns2 does not answer \(no answer in time\)\.$/,
    ],
  ])('%s is named', (_, change, reason) => {
    const { verdict, reasons } = look(change);
    expect(reasons[0]).toMatch(reason);
    expect(verdict).toBe('waiting');
  });
  it('a resolver past its TTL is named once the time is over', () => {
    const first = look({ servers: authorities(NEW, NEW), hosts: OLD_HOSTS });
    const later = look({ at: 3 * HOUR, servers: authorities(NEW, NEW), hosts: OLD_HOSTS }, first);
    expect(later).toMatchObject({ verdict: 'overdue', changedAt: HOUR, expectedBy: 2 * HOUR });
    expect(later.reasons[0]).toMatch(/^r1 still gives the old answer, past its TTL/);
  });
  it('something that turns back after it held is told from what never came', () => {
    const back = look({ at: 2 * HOUR, servers: authorities(OLD, OLD), hosts: OLD_HOSTS }, look());
    expect(back).toMatchObject({ verdict: 'turned back', heldAt: HOUR });
  });
  it('is overdue when nothing changes', () => {
    const never = { servers: authorities(OLD, OLD), hosts: OLD_HOSTS };
    expect(look({ ...never, at: HOUR }).verdict).toBe('waiting');
    expect(look({ ...never, at: 2 * HOUR }).verdict).toBe('overdue');
  });
  it('an old answer of a resolver says how long it lasts, one of a server does not', () => {
    const { subjects } = look({ servers: authorities(OLD, OLD) });
    expect(subjects.find((s) => s.kind === 'resolver')!.until).toBe(HOUR + 60_000);
    expect(subjects.find((s) => s.kind === 'authority')).not.toHaveProperty('until');
  });
  it('where name servers move the zone above has to name the new ones', () => {
    const above = {
      kind: 'zone above' as const,
      name: 'a.nic',
      answers: [{ name: D, type: 'NS', values: ['old1'], ttl: 9 }],
    };
    const seen = { ...GOOD, servers: [above, ...GOOD.servers] };
    const moving = watchStanding({ ...goal, nameServers: ['ns1', 'ns2'] }, seen, null, 0);
    expect(moving.reasons[0]).toMatch(
      /^The zone above \(a\.nic\) does not name the new name servers: NS tram\.example: old1/,
    );
    expect(watchStanding(goal, seen, null, 0).verdict).toBe('holds');
    above.answers[0]!.values = ['NS2.', 'ns1'];
    expect(watchStanding({ ...goal, nameServers: ['ns1', 'ns2'] }, seen, null, 0).verdict).toBe('holds');
  });
});

describe('each address of a host', () => {
  const V6 = '2001:db8::20';
  const at = (...addresses: SeenAddress[]) => look({ hosts: [host(D, { addresses }), host(`www.${D}`)] });
  const WRONG = 'the certificate is only for box7.host.example';
  it.each<[string, SeenAddress[], RegExp]>([
    [
      'a certificate for the server’s own name only',
      [address({ isCovered: false, tlsError: WRONG })],
      /^No valid certificate for tram\.example: the certificate is only for box7\.host\.example at 192\.0\.2\.20\.$/,
    ],
    [
      'a second address whose certificate is not trusted',
      [address(), address({ address: V6, isCovered: false, tlsError: 'CERT_HAS_EXPIRED' })],
      /^No valid certificate for tram\.example: CERT_HAS_EXPIRED at 2001:db8::20\.$/,
    ],
    [
      'a second address that answers nothing',
      [address(), address({ address: V6, isCovered: undefined, tlsError: 'reset', shows: 'nothing' })],
      /^No valid certificate for tram\.example: reset at 2001:db8::20\.$/,
    ],
    [
      'a second address that does not know the name',
      [address(), address({ address: V6, shows: 'unknown name' })],
      /^Set at the DNS operator, not told to the host: it does not know tram\.example\.$/,
    ],
    ['no address at all', [], /^No valid certificate for tram\.example: no handshake\.$/],
  ])('%s is never “it holds”', (_, addresses, reason) => {
    const { verdict, reasons } = at(...addresses);
    expect(verdict).toBe('waiting');
    expect(reasons[0]).toMatch(reason);
  });
  it('an old address that is still given is the old server’s, whatever its certificate', () => {
    const old = address({ address: OLD[0]!, shows: 'old site', isCovered: false });
    expect(at(address(), old).subjects.filter((s) => s.name === D)).toMatchObject([
      { kind: 'https', state: 'old' },
      { kind: 'http', state: 'old' },
    ]);
  });
  it('IPv6 that cannot be reached from here says nothing', () => {
    const far = address({ address: V6, isCovered: undefined, shows: 'nothing', isOutOfReach: true });
    expect(at(address(), far).verdict).toBe('holds');
  });
});

describe('two faults at once are two', () => {
  it.each<[string, Partial<WatchSeen>, RegExp[]]>([
    [
      'a server that was not changed and a certificate for another name',
      {
        servers: authorities(NEW, OLD),
        hosts: [host(D, { addresses: [address({ isCovered: false, tlsError: 'ALTNAME' })] })],
      },
      [/^Half of the servers: .*ns2 gives A/, /^No valid certificate for tram\.example/],
    ],
    [
      'one server is stale, another silent',
      {
        servers: [
          server('authority', 'ns1', NEW),
          server('authority', 'ns2', OLD),
          server('authority', 'ns3', [], { error: 'no answer in time' }),
        ],
      },
      [/^Half of the servers: ns1 has .* ns2 gives/, /^ns3 does not answer/],
    ],
    [
      'mail and a holding page',
      { mail: ['10 other.example'], hosts: [host(D, { shows: 'holding page' }), host(`www.${D}`)] },
      [/^Mail does not go where it went/, /^tram\.example still shows the holding page/],
    ],
    [
      'neither end was told',
      {
        servers: authorities(OLD, OLD),
        hosts: OLD_HOSTS,
        atNew: { ...host(D, { shows: 'unknown name' }), address: NEW[0]! },
      },
      [/^Not changed at the DNS operator/, /^Not told to the host either: it does not know tram\.example/],
    ],
  ])('%s', (_, change, expected) => {
    const { reasons } = look(change);
    expect(reasons).toHaveLength(expected.length);
    expected.forEach((reason, i) => expect(reasons[i]).toMatch(reason));
  });
  it('a server’s every wrong record is named', () => {
    const lines = [...goal.lines, { name: D, type: 'AAAA', before: ['2001:db8::1'], after: [], lasts: 60 }];
    const both = (name: string, a: string[], aaaa: string[]): SeenServer => ({
      kind: 'authority',
      name,
      answers: [
        { name: D, type: 'A', values: a, ttl: 60 },
        { name: D, type: 'AAAA', values: aaaa, ttl: 60 },
      ],
    });
    const servers = [both('ns1', NEW, []), both('ns2', OLD, ['2001:db8::1'])];
    const { reasons } = watchStanding({ ...goal, lines }, { ...GOOD, servers }, null, 0);
    expect(reasons[0]).toContain('A tram.example: 192.0.2.77; AAAA tram.example: 2001:db8::1');
  });
});

describe('what is as good as wanted', () => {
  const W = `www.${D}`;
  const edge = 'edge.host.example';
  const aliased: WatchGoal = {
    ...goal,
    lines: [
      { name: W, type: 'CNAME', before: [], after: [edge], lasts: 60 },
      { name: W, type: 'A', before: OLD, after: [], lasts: 60 },
    ],
  };
  const at = (a: string[], alias: string[] = []): SeenServer => ({
    kind: 'authority',
    name: 'ns1',
    answers: [
      { name: W, type: 'CNAME', values: alias, ttl: 60 },
      { name: W, type: 'A', values: a, ttl: 60 },
    ],
  });
  const standing = (server: SeenServer) =>
    watchStanding(aliased, { ...GOOD, servers: [server], aliases: { [edge]: NEW } }, null, 0).subjects[0]!
      .state;
  it.each<[string, SeenServer, string]>([
    ['the alias itself', at([], ['Edge.host.example.']), 'new'],
    ['the alias flattened into its addresses', at(NEW), 'new'],
    ['addresses that are not the alias’s', at(OLD), 'old'],
    ['some of each', at([...NEW, ...OLD]), 'other'],
    ['nothing', at([]), 'old'],
  ])('%s', (_, server, state) => {
    expect(standing(server)).toBe(state);
  });
  it('another address of the host is as good, in its ranges alone', () => {
    const seen = { ...GOOD, servers: [server('authority', 'ns1', ['192.0.2.21'])] };
    const state = (ranges?: string[]) => watchStanding({ ...goal, ranges }, seen, null, 0).subjects[0]!.state;
    expect(state(['192.0.2.16/28'])).toBe('new');
    expect(state()).toBe('other');
  });
});

describe('name servers that move', () => {
  const moving: WatchGoal = { ...goal, nameServers: ['new1', 'new2'], nsTtl: 86_400 };
  const seen = (names: string[], hour: number): WatchSeen => ({
    ...GOOD,
    at: hour * HOUR,
    servers: [
      { kind: 'zone above', name: 'a.nic', answers: [{ name: D, type: 'NS', values: names, ttl: 86_400 }] },
      server('authority', 'new1', NEW),
      server('resolver', 'r1', OLD),
    ],
  });
  it('change when the zone above names the new ones, and are late only after its TTL and the record’s', () => {
    const before = watchStanding(moving, seen(['old1'], 0), null, 0);
    expect(before.changedAt).toBeNull();
    const turned = watchStanding(moving, seen(['new1', 'new2'], 1), before, 0);
    expect(turned).toMatchObject({ changedAt: HOUR, expectedBy: 26 * HOUR, verdict: 'waiting' });
    expect(watchStanding(moving, seen(['new1', 'new2'], 20), turned, 0).verdict).toBe('waiting');
    expect(watchStanding(moving, seen(['new1', 'new2'], 27), turned, 0).verdict).toBe('overdue');
  });
});

describe('the goal', () => {
  const plan = (now: string) =>
    planCutOver({
      served: [
        { name: D, type: 'A', value: now, ttl: 3600 },
        { name: D, type: 'MX', value: `10 mail.${D}.`, ttl: 3600 },
      ],
      wanted: [{ name: D, type: 'A', value: '192.0.2.20' }],
      negativeTtl: 60,
    });
  const brief = { records: [{ name: `${D}.`, type: 'A', value: '192.0.2.20' }] };
  it('is what changes; mail is to stay', () => {
    expect(goalOf(plan('192.0.2.77'), { brief, hosts: [D] })).toEqual({
      lines: goal.lines.map((l) => ({ ...l, ttl: 3600 })),
      nameServers: [],
      nsTtl: 0,
      hosts: [D],
      mail: [`10 mail.${D}`],
    });
  });
  it.each([
    ['as long as it was kept before the launch', 86_400, 86_400],
    ['as long as the new one, where nothing else is known', 0, 3600],
  ])('changed already, caches may hold the old one %s', (_, oldTtl, lasts) => {
    const { lines } = goalOf(plan('192.0.2.20'), { brief, hosts: [D], oldTtl });
    expect(lines).toMatchObject([{ name: D, type: 'A', lasts }]);
  });
  it('is what is wanted where it is changed already', () => {
    expect(goalOf(plan('192.0.2.20'), { brief, hosts: [D] }).lines).toMatchObject([
      { name: D, type: 'A', before: [], after: ['192.0.2.20'] },
    ]);
  });
});

it('only what changed from one look to the next is noted', () => {
  const first = look({ servers: authorities(NEW, OLD) });
  const second = look({ servers: authorities(NEW, NEW) });
  expect(watchChanges(null, first)).toHaveLength(first.subjects.length);
  expect(watchChanges(first, second).map((s) => `${s.name} ${s.state}`)).toEqual(['ns2 new']);
  expect(watchChanges(second, second)).toEqual([]);
});

it.each([
  ['at first', 0, false, 30_000],
  ['after a while', HOUR / 2, false, 120_000],
  ['after hours', 7 * HOUR, false, 900_000],
  ['once it holds', 0, true, 1_800_000],
])('it looks ever less often: %s', (_, since, holds, pause) => {
  expect(pauseAfter(since, holds)).toBe(pause);
});

describe('what a visitor meets', () => {
  const page = (title: string, text = '') => ({
    url: `https://${D}/`,
    facts: extractPage(
      `<!doctype html><title>${title}</title><body><h1>${title}</h1><p>${text}`,
      `https://${D}/`,
    ),
  });
  const known = {
    brief: { name: 'Firth Trams' },
    profile: { name: 'Q', marks: { unknownName: ['Nobody lives at this address'] } },
    oldAddresses: ['192.0.2.77'],
  };
  it.each([
    ['the site', { page: page('Firth Trams'), status: 200, address: '192.0.2.20' }, 'site'],
    [
      'the same page at the old address',
      { page: page('Firth Trams'), status: 200, address: '192.0.2.77' },
      'old site',
    ],
    ['a common parking page', { page: page('This domain is parked'), status: 200 }, 'parking page'],
    [
      'the host’s own mark',
      { page: page('Oops', 'Nobody lives at this address'), status: 200 },
      'unknown name',
    ],
    ['a root that is not found', { status: 404 }, 'unknown name'],
    ['a misdirected request (RFC 9110 15.5.20)', { status: 421 }, 'unknown name'],
    ['a holding page', { page: page('Coming soon'), status: 503 }, 'holding page'],
    ['a visitor who is refused', { status: 403 }, 'refused'],
    ['a server that fails', { status: 502 }, 'nothing'],
    ['nothing', {}, 'nothing'],
  ])('%s', (_, landing, shows) => {
    expect(showsOf(landing, known)).toBe(shows);
  });
});
