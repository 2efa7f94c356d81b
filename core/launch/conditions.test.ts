/** Which steps belong on a sheet, from the site’s facts. */
import { describe, expect, it } from 'vitest';
import { evidence } from '#core/checks/example-evidence';
import type { Condition } from '#core/facts/launch';
import { conditionsOf, type LaunchFacts } from './conditions';
import { pasteOf } from './pastes';

const facts = (more: Partial<LaunchFacts> = {}): LaunchFacts => ({
  replaces: false,
  brief: {},
  live: null,
  isHolding: false,
  hasBefore: false,
  stagingEnds: false,
  hasBuild: false,
  ...more,
});
const { dns } = evidence();
const registered = (registrar: string) => ({
  domain: 'x',
  served: true,
  status: [],
  events: [],
  nameServers: [],
  registrar,
});

describe('a condition', () => {
  it.each<[Condition, string, LaunchFacts, boolean]>([
    ['always', 'of any site', facts(), true],
    ['replaces', 'of a site that replaces one', facts({ replaces: true }), true],
    ['new', 'of a site that replaces one', facts({ replaces: true }), false],
    ['records', 'without more', facts(), true],
    ['records', 'reached by forwarding', facts({ brief: { reachedBy: 'forwarding' } }), false],
    ['forwarding', 'reached by forwarding', facts({ brief: { reachedBy: 'forwarding' } }), true],
    [
      'moves',
      'with other name servers',
      facts({ brief: { nameServers: ['new.example'] }, live: { dns, registration: null } }),
      true,
    ],
    [
      'records',
      'with other name servers',
      facts({ brief: { nameServers: ['new.example'] }, live: { dns, registration: null } }),
      false,
    ],
    [
      'addressed',
      'with other name servers',
      facts({ brief: { nameServers: ['new.example'] }, live: { dns, registration: null } }),
      true,
    ],
    [
      'moves',
      'with those of today, written otherwise',
      facts({
        brief: { nameServers: dns.nameServers.map((s) => `${s.name.toUpperCase()}.`) },
        live: { dns, registration: null },
      }),
      false,
    ],
    ['moves', 'while nobody knows those of today', facts({ brief: { nameServers: ['new.example'] } }), false],
    [
      'transfers',
      'with another registrar',
      facts({ brief: { registrar: 'B' }, live: { dns, registration: registered('A') } }),
      true,
    ],
    [
      'transfers',
      'with the same registrar',
      facts({ brief: { registrar: 'a' }, live: { dns, registration: registered('A') } }),
      false,
    ],
    ['mail', 'that takes mail', facts({ brief: { mail: 'yes' } }), true],
    ['mail', 'without mail', facts({ brief: { mail: 'none' }, live: { dns, registration: null } }), false],
    ['staging ends', 'whose staging ends, without one', facts({ stagingEnds: true }), false],
    [
      'former',
      'with former addresses',
      facts({ brief: { formerAddresses: [{ from: '/a', to: '/b' }] } }),
      true,
    ],
  ])('%s %s', (condition, _, given, holds) => {
    expect(conditionsOf(given).has(condition)).toBe(holds);
  });
});

describe('what a step has to paste', () => {
  const input = {
    plan: { wanted: 'W', lowered: 'L', move: { from: [], to: [], nsTtl: 0, zone: 'Z' } },
    brief: {
      nameServers: ['ns1.x', 'ns2.x'],
      forwardTo: 'https://x.example/',
      formerAddresses: [{ from: '/a', to: '/b' }],
    },
    siteName: 'Trams',
    liveUrl: 'https://www.t.example/',
    hosts: ['www.t.example', 't.example'],
    when: 'Monday',
    until: 'Tuesday',
  };
  it.each([
    ['wanted', 'W'],
    ['zone', 'Z'],
    ['lowered', 'L'],
    ['names', 'www.t.example\nt.example'],
    ['servers', 'ns1.x\nns2.x'],
    ['forward', 't.example -> https://x.example/ (permanent, 301)'],
    ['redirects', 'location = "/a" { return 301 /b; }'],
  ] as const)('%s', (kind, text) => {
    expect(pasteOf(kind, input)).toBe(text);
  });
  it('a note says when, and until when the old site may be seen', () => {
    expect(pasteOf('note', input)).toMatch(/Trams live on Monday[\s\S]*until Tuesday/);
  });
});
