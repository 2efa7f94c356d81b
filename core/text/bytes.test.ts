import { expect, it } from 'vitest';
import { bytesInWords } from './bytes';

it.each([
  [0, '0 bytes'],
  [1, '1 byte'],
  [999, '999 bytes'],
  [1000, '1 kB'],
  [86_400, '86 kB'],
  [999_600, '1 MB'],
  [1_440_000, '1.4 MB'],
  [2_000_000, '2 MB'],
  [3_000_000_000, '3 GB'],
])('%d bytes are %s', (bytes, words) => {
  expect(bytesInWords(bytes)).toBe(words);
});
