import { describe, expect, it } from 'vitest';
import type { TemplateStep } from '#core/facts/launch';
import { waitsOf } from './waits';

const step = (id: string, after: string[] = []): TemplateStep => ({
  id,
  title: id.toUpperCase(),
  what: '',
  phase: 'launch',
  offsetHours: 0,
  when: 'always',
  who: 'agency',
  after,
  proofs: [],
});

describe('how long steps waited', () => {
  const template = {
    steps: [step('a'), step('b'), step('c', ['a', 'b']), step('d', ['c']), step('e', ['a'])],
  };
  it('counts from the last of what each rests on, the longest first', () => {
    const doneAt = new Map([
      ['a', 100],
      ['b', 300],
      ['c', 500],
      ['d', 1500],
    ]);
    expect(waitsOf(template, doneAt)).toEqual([
      { step: 'd', title: 'D', ms: 1000 },
      { step: 'c', title: 'C', ms: 200 },
    ]);
  });
  it('says nothing of what was done out of order', () => {
    expect(
      waitsOf(
        template,
        new Map([
          ['a', 900],
          ['e', 100],
        ]),
      ),
    ).toEqual([]);
  });
});
