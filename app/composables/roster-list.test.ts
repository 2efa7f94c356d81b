import { describe, expect, it } from 'vitest';
import type { RosterRow } from '~/types';
import { listSites, openFixesOf, type RosterView } from './roster-list';

const site = (name: string, score: number | null, more: object = {}): RosterRow =>
  ({
    id: name.length,
    name,
    client: 'Windrow',
    stage: 'building',
    launchDate: null,
    hostProfile: 'Fennel',
    shown: 1,
    environments: [
      {
        id: 1,
        url: `https://${name}.example/`,
        openFixes: 2,
        audit:
          score === null
            ? null
            : { score, lost: 100 - score, gate: score < 50 ? 'held' : 'clear', at: 'x', worst: null },
      },
      { id: 2, url: 'https://draft.example/', openFixes: 1, audit: null },
    ],
    ...more,
  }) as unknown as RosterRow;
const ALL: RosterView = { words: '', stage: 'all', by: 'site', down: false };
const rows = [
  site('anchors', 95),
  site('tides', 90),
  site('kites', null),
  site('ferries', 20, { stage: 'launched' }),
];
const names = (view: Partial<RosterView>): string[] =>
  listSites(rows, { ...ALL, ...view }).map((r) => r.name);

describe('the roster lists', () => {
  it.each([
    ['by name', {}, ['anchors', 'ferries', 'kites', 'tides']],
    ['by score, the unknown last', { by: 'score' }, ['ferries', 'tides', 'anchors', 'kites']],
    [
      'by score downwards, the unknown last too',
      { by: 'score', down: true },
      ['anchors', 'tides', 'ferries', 'kites'],
    ],
    [
      'by gate: held, never audited, then those that lose most',
      { by: 'gate' },
      ['ferries', 'kites', 'tides', 'anchors'],
    ],
    ['one stage', { stage: 'launched' }, ['ferries']],
    ['what words find: a gate and a host', { words: 'held fennel' }, ['ferries']],
    ['nothing for other words', { words: 'nowhere' }, []],
  ] as [string, Partial<RosterView>, string[]][])('%s', (_, view, wanted) => {
    expect(names(view)).toEqual(wanted);
  });
  it('the open fixes of all environments together', () => {
    expect(openFixesOf(rows[1]!)).toBe(3);
  });
});
