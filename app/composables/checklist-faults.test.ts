import { describe, expect, it } from 'vitest';
import { sortFaults } from './checklist-faults';

const list = {
  name: 'Ours',
  version: 1,
  items: [{ check: 'https.hsts' }, { check: 'own.tide' }],
  own: [{ id: 'own.tide' }],
} as never;
const fault = (path: string, message: string) => ({ path, message });

describe('faults of a checklist', () => {
  it.each([
    [
      'of a line',
      [fault('items.0.weight', 'items.0.weight must be a number')],
      'https.hsts',
      'weight must be a number',
    ],
    [
      'of an own check',
      [fault('own.0.test.at', 'own.0.test.at must be filled')],
      'own.tide',
      'at must be filled',
    ],
    [
      'that names its check',
      [fault('items.0', 'https.hsts: it stands twice')],
      'https.hsts',
      'it stands twice',
    ],
  ])('%s', (_, faults, row, words) => {
    expect(sortFaults(faults, list)).toEqual({ byRow: { [row]: [words] }, sentence: '1 line needs a look.' });
  });
  it('of the whole are said above, with the count', () => {
    const faults = [fault('name', 'name must not be empty'), fault('items.0.weight', 'x')];
    expect(sortFaults(faults, list).sentence).toBe('name must not be empty 2 lines need a look.');
  });
  it('none at all', () => {
    expect(sortFaults([], list)).toEqual({ byRow: {}, sentence: '' });
  });
});
