import { describe, expect, it } from 'vitest';
import { durationsFrom, type AuditTime } from './duration';

const time = (environmentId: number, tookMs: number, parts: AuditTime['parts'] = null): AuditTime => ({
  environmentId,
  parts,
  tookMs,
});

describe('how long an audit will take', () => {
  const expected = durationsFrom([
    time(1, 9000),
    time(1, 11_000),
    time(2, 30_000),
    time(2, 500, ['dns', 'tls']),
    time(3, 700, ['tls', 'dns']),
  ]);
  it.each([
    ['by its own audits', 1, null, 10_000],
    ['by all others, where it has none', 9, null, 11_000],
    ['by those of the same parts alone', 2, ['dns', 'tls'], 500],
    ['in whatever order they are named', 9, ['tls', 'dns'], 600],
    ['by what is usual, where nothing like it was done', 1, ['http'], 4000],
  ] as const)('%s', (_, environment, parts, ms) => expect(expected(environment, parts)).toBe(ms));
  it('by its last five: what came before was another site', () => {
    const times = [1, 1, 1, 1, 1, 900, 900, 900, 900, 900, 900].map((ms) => time(4, ms));
    expect(durationsFrom(times)(4, null)).toBe(1);
  });
});
