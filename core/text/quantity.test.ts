import { expect, it } from 'vitest';
import { quantity } from './quantity';

it('one is told from many, and nought is many', () => {
  expect([
    quantity(0, 'group'),
    quantity(1, 'group'),
    quantity(2, 'group'),
    quantity(1, 'fix', 'fixes'),
    quantity(3, 'fix', 'fixes'),
  ]).toEqual(['0 groups', '1 group', '2 groups', '1 fix', '3 fixes']);
});
