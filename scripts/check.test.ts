import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { faultsOf } from './check.mjs';

describe('the planted faults of changed checks', () => {
  const table = readFileSync('net/faults.ts', 'utf8');
  it.each([
    ['a check', ['core/checks/catalogue/indexing/let-in.ts'], ['noindex-left']],
    ['its test alone', ['core/checks/catalogue/metadata/no-refresh.test.ts'], ['refresh']],
    ['something else', ['core/checks/kit/judgement.ts', 'README.md'], []],
  ])('%s', (_, files, wanted) => {
    expect(faultsOf(files, table)).toEqual(wanted);
  });
});
