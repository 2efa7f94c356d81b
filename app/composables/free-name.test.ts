import { describe, expect, it } from 'vitest';
import { unusedName } from './free-name';

describe('a name that is free', () => {
  it.each<[string[], string]>([
    [[], 'Full copy'],
    [['Full copy'], 'Full copy 2'],
    [['Full copy', 'Full copy 2', 'Full copy 3'], 'Full copy 4'],
    [['Full copy 2'], 'Full copy'],
  ])('beside %j: %s', (taken, name) => {
    expect(unusedName('Full copy', taken)).toBe(name);
  });
});
