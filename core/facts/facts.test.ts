import { describe, expect, it } from 'vitest';
import { chain, brokenChain, exchange } from '#core/checks/example-evidence';
import { readField } from './brief';
import { finalStatus, headerValues, lastAnswer } from './evidence';
import { situationOf } from './situation';

describe('a field of the brief', () => {
  it.each([
    [{}, 'unfilled'],
    [{ name: '' }, 'unfilled'],
    [{ languages: [] }, 'unfilled'],
    [{ name: 'x' }, 'filled'],
    [{ notWanted: { name: 'none' } }, 'notWanted'],
    [{ name: 'x', notWanted: { name: 'none' } }, 'notWanted'],
  ] as const)('%j: %s', (brief, state) => {
    expect(readField(brief as never, 'languages' in brief ? 'languages' : 'name').state).toBe(state);
  });
});

describe('the situation of an environment', () => {
  it.each([
    ['before', 'building', false, undefined, 'staging'],
    ['before', 'launched', true, undefined, 'staging'],
    ['live', 'building', false, undefined, 'holding'],
    ['live', 'pre-launch', false, undefined, 'holding'],
    ['live', 'pre-launch', true, undefined, 'former'],
    ['live', 'pre-launch', true, true, 'holding'],
    ['live', 'pre-launch', true, false, 'former'],
    ['live', 'launched', false, undefined, 'live'],
    ['live', 'launched', true, true, 'live'],
  ] as const)('%s, %s, replaces %s, holding seen %s: %s', (kind, stage, replaces, holdingSeen, expected) => {
    expect(situationOf({ kind, stage, replaces, holdingSeen })).toBe(expected);
  });
  it('a person’s choice wins', () => {
    expect(situationOf({ kind: 'before', stage: 'building', replaces: false, chosen: 'live' })).toBe('live');
  });
});

describe('chains', () => {
  it('come to rest at their last answer, or at none', () => {
    expect(finalStatus(chain(['https://a.example/', 'https://b.example/'], 404))).toBe(404);
    const broken = brokenChain('https://a.example/', 'timeout');
    expect(finalStatus(broken)).toBeUndefined();
    expect(lastAnswer(broken)).toBeUndefined();
    expect(finalStatus({ ...chain(['https://a.example/'], 301), end: 'error' })).toBeUndefined();
  });
  it('header names have no case, and all values count in their order', () => {
    const e = exchange('https://a.example/', 200, [
      ['X-Robots-Tag', 'a'],
      ['x-robots-tag', 'b'],
      ['X-Robots-Tags', 'c'],
    ]);
    expect(headerValues(e, 'X-ROBOTS-TAG')).toEqual(['a', 'b']);
    expect(headerValues(undefined, 'x')).toEqual([]);
  });
});
