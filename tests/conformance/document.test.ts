import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '#core/checks/catalogue/index';

describe('docs/conformance.md', () => {
  it('lists each check with what it rests on and its cases (npm run conformance)', () => {
    const rows = [
      ...readFileSync(new URL('../../docs/conformance.md', import.meta.url), 'utf8').matchAll(
        /^\| ([a-z]+\.[a-z0-9-]+) \| (.*) \| (\d+) \|$/gm,
      ),
    ].map(([, id, source, cases]) => ({ id, source, cases: Number(cases) }));
    expect(rows.map((r) => [r.id, r.source])).toEqual(
      CATALOGUE.map((c) => [c.id, c.source.replace(/\|/g, '\\|').replace(/\s+/g, ' ').trim()]),
    );
    expect(rows.filter((r) => r.cases < 1)).toEqual([]);
  });
});
