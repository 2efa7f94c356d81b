import type { Stage } from '#core/facts/situation';
import { describe, expect, it } from 'vitest';
import {
  ago,
  dayText,
  daysFrom,
  likelyMoment,
  moment,
  momentUtc,
  spanText,
  stageWords,
  outcomeSign,
  OUTCOME_WORDS,
} from './words';

const now = new Date('2026-11-24T23:30:00Z');

describe('dates in words', () => {
  it.each([
    ['2026-11-24', 'today'],
    ['2026-11-25', 'tomorrow'],
    ['2026-11-23', 'yesterday'],
    ['2026-12-03', 'in 9 days'],
    ['2026-09-24', '61 days ago'],
    ['2026-11-24T01:00:00Z', 'today'],
  ])('%s is %s', (date, words) => {
    expect(daysFrom(date, now)).toBe(words);
  });
  it.each([
    [0, 'just now'],
    [59, 'just now'],
    [60, '1 min ago'],
    [3599, '59 min ago'],
    [3600, '1 h ago'],
    [47 * 3600, '47 h ago'],
    [48 * 3600, '2 days ago'],
    [400 * 86400, '400 days ago'],
  ])('%s seconds are %s', (seconds, words) => {
    expect(ago(new Date(now.getTime() - seconds * 1000).toISOString(), now.getTime())).toBe(words);
  });
  it('a moment is told in the reader’s locale, and exactly in UTC beside it', () => {
    const iso = '2026-11-24T05:06:07.000Z';
    expect(momentUtc(iso)).toBe('2026-11-24 05:06 UTC');
    expect(moment(iso)).toBe(
      new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(iso)),
    );
  });
  it('a day stays that day in every time zone', () => {
    expect(dayText('2026-11-24')).toMatch(/24/);
    expect(dayText('2026-11-24T23:59:59Z')).toBe(dayText('2026-11-24'));
  });
});

describe('states in words', () => {
  it('an accepted fault is accepted, not failed', () => {
    expect(outcomeSign({ outcome: 'failed', accepted: true })).toBe('accepted');
    expect(outcomeSign({ outcome: 'failed' })).toBe('failed');
    expect(outcomeSign({ outcome: 'cantTell' })).toBe('cantTell');
  });
  it('every stitch has a word of its own', () => {
    const words = Object.values(OUTCOME_WORDS);
    expect(new Set(words).size).toBe(6);
  });
  it('stage and launch', () => {
    const said = (stage: Stage, launchDate: string | null, launchedAt: string | null = null): string =>
      stageWords({ stage, launchDate, launchedAt });
    expect(said('pre-launch', null)).toBe('pre-launch');
    expect(said('retired', '2020-01-01')).toBe('retired');
    expect(said('launched', '2020-01-01')).toMatch(/^launched \d+ days ago$/);
    expect(said('building', '2999-01-01')).toMatch(/^building, launch in \d+ days$/);
    // the real time counts, and a plan that is still to come says nothing of it
    expect(said('launched', '2999-01-01', '2020-01-01T08:00:00Z')).toMatch(/^launched \d+ days ago$/);
    expect(said('launched', '2999-01-01')).toBe('launched');
  });
});

it.each([
  [90_000, '2 minutes'],
  [119 * 60_000, '119 minutes'],
  [25 * 3_600_000, '25 hours'],
  [86_400_000 * 3, '3 days'],
])('%d ms are %s', (ms, words) => {
  expect(spanText(ms)).toBe(words);
});

describe('a launch is planned at first for', () => {
  const now = Date.parse('2026-11-28T12:00:00Z');
  it.each([
    ['a day to come', '2026-12-01', new Date('2026-12-01T09:00').toISOString()],
    ['a day that is past', '2026-11-01', '2026-11-28T12:00:00.000Z'],
    ['no day', null, '2026-11-28T12:00:00.000Z'],
  ])('%s', (_, date, wanted) => {
    expect(likelyMoment(date, now)).toBe(wanted);
  });
});
