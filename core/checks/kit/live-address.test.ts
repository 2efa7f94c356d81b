import { describe, expect, it } from 'vitest';
import type { CheckContext } from './check';
import { hereOf, onLive } from './live-address';

const BASE = 'https://draft.fennel.example/choir/';
const at = (situation: string, preferredHost?: string): Pick<CheckContext, 'view' | 'brief'> =>
  ({
    view: { situation, evidence: { target: { url: BASE } }, within: (url: string) => url.startsWith(BASE) },
    brief: { preferredHost, otherHosts: ['www.marsh-choir.example'] },
  }) as unknown as Pick<CheckContext, 'view' | 'brief'>;
const before = at('staging', 'marsh-choir.example');

describe('addresses before the launch', () => {
  it.each([
    ['the live host stands for this environment', 'https://marsh-choir.example/de/?a=1', `${BASE}de/?a=1`],
    ['its other host too', 'https://www.marsh-choir.example/', BASE],
    ['another host is another', 'https://firth.example/de/', 'https://firth.example/de/'],
    ['its own address is its own', `${BASE}de/`, `${BASE}de/`],
  ])('%s', (_, href, here) => expect(hereOf(before, href)).toBe(here));
  it.each([
    ['a page below the base', `${BASE}de/`, 'https://marsh-choir.example/de/'],
    ['a file of it', `${BASE}logo.png`, 'https://marsh-choir.example/logo.png'],
    ['what is not of this environment', 'https://cdn.example/logo.png', 'https://cdn.example/logo.png'],
  ])('%s has a live address', (_, url, live) => expect(onLive(before, url)).toBe(live));
  it('once it is live, each is where it is', () => {
    const now = at('live', 'marsh-choir.example');
    expect([hereOf(now, 'https://marsh-choir.example/'), onLive(now, BASE)]).toEqual([
      'https://marsh-choir.example/',
      BASE,
    ]);
  });
  it('without a preferred host nothing is led over', () => expect(onLive(at('staging'), BASE)).toBe(BASE));
});
