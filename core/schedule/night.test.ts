import { describe, expect, it } from 'vitest';
import { nightOf, openSpans, spread, windowOf, type ScheduleRule } from './night';

const rule = (more: Partial<ScheduleRule> = {}): ScheduleRule => ({
  every: 'day',
  weekday: 1,
  from: '01:00',
  to: '05:00',
  ...more,
});
const utc = (text: string): Date => new Date(`${text}Z`);
const shown = ({ from, to }: { from: Date; to: Date }): string =>
  `${from.toISOString().slice(5, 16)} ${to.toISOString().slice(5, 16)}`;

describe('the window of a rule', () => {
  // summer time in London began on 2026-03-29 at 01:00 UTC and ended on 2026-10-25 (IANA tz database)
  it.each<[string, Partial<ScheduleRule>, string, string, string]>([
    ['later today', {}, 'UTC', '2026-11-27T00:30', '11-27T01:00 11-27T05:00'],
    ['open now', {}, 'UTC', '2026-11-27T03:00', '11-27T01:00 11-27T05:00'],
    ['over: tomorrow', {}, 'UTC', '2026-11-27T05:00', '11-28T01:00 11-28T05:00'],
    ['in its own zone', {}, 'America/New_York', '2026-11-27T00:00', '11-27T06:00 11-27T10:00'],
    [
      'over midnight, open now',
      { from: '22:00', to: '04:00' },
      'UTC',
      '2026-11-27T02:00',
      '11-26T22:00 11-27T04:00',
    ],
    ['weekly: the next Monday', { every: 'week' }, 'UTC', '2026-11-27T02:00', '11-30T01:00 11-30T05:00'],
    [
      'weekly: Sunday is 7',
      { every: 'week', weekday: 7 },
      'UTC',
      '2026-11-27T02:00',
      '11-29T01:00 11-29T05:00',
    ],
    [
      'an hour that summer time leaves out',
      { from: '01:30' },
      'Europe/London',
      '2026-03-29T00:00',
      '03-29T01:00 03-29T04:00',
    ],
    [
      'a night of five hours',
      { from: '00:00' },
      'Europe/London',
      '2026-10-25T00:00',
      '10-24T23:00 10-25T05:00',
    ],
  ])('%s', (_, more, zone, at, expected) => {
    expect(shown(windowOf(rule(more), zone, utc(at)))).toBe(expected);
  });
  it.each([
    ['25:00', 'UTC'],
    ['01:00', 'Nowhere/Land'],
  ])('refuses %s in %s', (from, zone) => {
    expect(() => windowOf(rule({ from }), zone, utc('2026-11-27T00:00'))).toThrow();
  });
  it('is named after the day on which it begins there', () => {
    const night = windowOf(rule({ from: '22:00', to: '04:00' }), 'America/New_York', utc('2026-11-27T05:00'));
    expect(nightOf(night, 'America/New_York')).toBe('2026-11-26');
  });
});

describe('blackout hours', () => {
  const night = { from: utc('2026-11-27T01:00'), to: utc('2026-11-27T05:00') };
  it.each<[string, ScheduleRule['blackout'], string[]]>([
    ['none', undefined, ['11-27T01:00 11-27T05:00']],
    ['in the middle', { from: '02:00', to: '03:00' }, ['11-27T01:00 11-27T02:00', '11-27T03:00 11-27T05:00']],
    ['at its begin', { from: '00:30', to: '02:00' }, ['11-27T02:00 11-27T05:00']],
    ['at its end', { from: '04:00', to: '06:00' }, ['11-27T01:00 11-27T04:00']],
    ['elsewhere', { from: '12:00', to: '13:00' }, ['11-27T01:00 11-27T05:00']],
    ['all of it', { from: '00:00', to: '06:00' }, []],
  ])('%s', (_, blackout, expected) => {
    expect(openSpans(night, blackout, 'UTC').map(shown)).toEqual(expected);
  });
});

describe('spreading over a night', () => {
  const spans = [
    { from: utc('2026-11-27T01:00'), to: utc('2026-11-27T02:00') },
    { from: utc('2026-11-27T03:00'), to: utc('2026-11-27T05:00') },
  ];
  const items = Array.from({ length: 60 }, (_, key) => ({ key, host: ['a', 'b', 'b', 'c'][key % 4]! }));

  it('each once, within the open hours, in order, evenly', () => {
    const out = spread(items, spans);
    expect(new Set(out.map((o) => o.key)).size).toBe(60);
    for (const { at } of out) expect(spans.some((s) => at >= s.from && at < s.to)).toBe(true);
    expect(out.map((o) => o.at)).toEqual(out.map((o) => o.at).sort((a, b) => a.getTime() - b.getTime()));
    // three minutes apart, but for the hour of blackout
    const gaps = out.slice(1).map((o, i) => o.at.getTime() - out[i]!.at.getTime());
    expect(new Set(gaps)).toEqual(new Set([180_000, 180_000 + 3_600_000]));
  });
  it('those of one host are apart as far as they can be', () => {
    const hosts = spread(items, spans).map((o) => items[o.key]!.host);
    for (let i = 0; i + 4 <= hosts.length; i += 4)
      expect([...hosts.slice(i, i + 4)].sort()).toEqual(['a', 'b', 'b', 'c']);
  });
  it('where nothing is open there is no time', () => {
    expect(spread(items, [])).toEqual([]);
  });
});
