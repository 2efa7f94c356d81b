/** The registrar, operator and host of the practice net, and resolvers that keep answers. */
import { describe, expect, it } from 'vitest';
import { cachingAnswerer } from './caching';
import { Desk } from './desk';
import type { ZoneAnswer } from './dns-server';
import { PracticeClock } from './practice-clock';
import { SITES } from './sites';
import { parseZone, zoneText } from './zone-text';

const D = 'tram.example';

describe('a zone as text', () => {
  it('comes back as it was', () => {
    const records = [
      { name: D, type: 'A', ttl: 300, value: '192.0.2.1' },
      { name: `www.${D}`, type: 'CNAME', ttl: 3600, value: 'edge.host.example' },
      { name: D, type: 'MX', ttl: 3600, value: '10 mail.tram.example' },
      { name: D, type: 'MX', ttl: 3600, value: '0 .' },
      { name: D, type: 'TXT', ttl: 3600, value: `v=DKIM1; p=${'x'.repeat(300)} "quoted" \\` },
      { name: D, type: 'CAA', ttl: 3600, value: '0 issue ca.registry.example' },
    ];
    expect(parseZone(zoneText(records), D)).toEqual(records);
  });
  it.each([
    ['no record', 'hello', /is no record/],
    ['another zone', 'a.other.example. 300 IN A 192.0.2.1', /not in the zone/],
    ['an alias beside others', `${D}. IN CNAME x.example.\n${D}. IN A 192.0.2.1`, /CNAME beside/],
    ['a type that is the operator’s', `${D}. IN NS ns1.example.`, /is no record/],
    ['a TTL without end', `${D}. 99999999999 IN A 192.0.2.1`, /too long/],
  ])('%s is refused', (_, text, why) => {
    expect(() => parseZone(text, D)).toThrow(why);
  });
});

describe('a resolver that keeps answers', () => {
  const held = (stretch: number) => {
    let at = 0;
    let value = 'old';
    const ask = cachingAnswerer(
      (): ZoneAnswer => ({
        rcode: 0,
        authoritative: true,
        records: [{ name: D, type: 'A', ttl: 60, value }],
      }),
      () => at,
      stretch,
    );
    return {
      look: () => ask(D, 'A', { checkingDisabled: false }).records[0]!,
      after: (seconds: number) => (at += seconds * 1000),
      change: () => (value = 'new'),
    };
  };
  it('counts down, and asks again once the TTL is over', () => {
    const r = held(1);
    expect(r.look()).toMatchObject({ value: 'old', ttl: 60 });
    r.change();
    r.after(59);
    expect(r.look()).toMatchObject({ value: 'old', ttl: 1 });
    r.after(1);
    expect(r.look()).toMatchObject({ value: 'new', ttl: 60 });
  });
  it('that breaks the rules keeps it longer', () => {
    const r = held(3);
    r.look();
    r.change();
    r.after(179);
    expect(r.look()).toMatchObject({ value: 'old', ttl: 0 });
    r.after(1);
    expect(r.look().value).toBe('new');
  });
});

describe('the desk', () => {
  const trams = SITES.find((s) => s.slug === 'trams')!;
  const base = [
    { name: trams.domain, type: 'NS', ttl: 1, value: 'ns' },
    { name: trams.domain, type: 'A', ttl: 3600, value: '192.0.2.77' },
  ];
  const zone = `${trams.domain}. 300 IN A 192.0.2.20`;
  const values = (desk: Desk, who: 'first' | 'second') =>
    desk.zoneFor(trams, who, base).map((r) => `${r.type} ${r.value}`);

  it('a saved zone is served at once, by the second server after its lag', () => {
    let at = 0;
    const desk = new Desk(undefined, () => at);
    desk.change('trams', { lagMinutes: 10 });
    desk.change('trams', { zone });
    expect(values(desk, 'first')).toEqual(['NS ns', 'A 192.0.2.20']);
    expect(values(desk, 'second')).toEqual(['NS ns', 'A 192.0.2.77']);
    at = 10 * 60_000;
    expect(values(desk, 'second')).toEqual(['NS ns', 'A 192.0.2.20']);
  });
  it('an operator that refuses takes no zone, and says so', () => {
    const desk = new Desk(undefined, () => 0);
    desk.change('trams', { refuses: true });
    expect(() => desk.change('trams', { zone })).toThrow(/refuses/);
    expect(values(desk, 'first')).toEqual(['NS ns', 'A 192.0.2.77']);
  });
  it('a site to be replaced is not known to its new host before it is told', () => {
    const desk = new Desk(undefined, () => 0);
    expect(desk.isOpen(trams)).toBe(false);
    desk.change('trams', { hostTold: true });
    expect(desk.isOpen(trams)).toBe(true);
  });
  it.each([
    ['nobody', {}],
    ['trams', { lagMinutes: -1 }],
  ])('what is none is refused: %s %j', (slug, change) => {
    expect(() => new Desk(undefined, () => 0).change(slug, change)).toThrow(RangeError);
  });
});

it('the practice clock does not jump when its speed is set', () => {
  const clock = new PracticeClock();
  const before = clock.now();
  clock.set(before, 1000);
  expect(clock.now() - before).toBeLessThan(60_000);
  expect(() => clock.set(before, 0)).toThrow(RangeError);
});
