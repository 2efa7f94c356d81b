import { describe, expect, it } from 'vitest';
import { VERSIONS_READ, versionsWindow } from './versions';

const kept = (count: number) =>
  Array.from({ length: count }, (_, i) => ({
    version: count - i,
    savedBy: 'Mara Quill',
    savedAt: new Date(0),
    data: { tagline: `at ${count - i}` },
  }));

describe('versions, a window at a time', () => {
  it('says what each changed, the first of all from nothing', () => {
    const { rows, next } = versionsWindow(kept(2));
    expect(rows.map((v) => v.changes.map((c) => [c.kind, c.from, c.to]))).toEqual([
      [['changed', 'at 1', 'at 2']],
      [['added', undefined, 'at 1']],
    ]);
    expect(next).toBeNull();
  });
  it('goes on below the last that it shows, which knows the one before it', () => {
    const { rows, next } = versionsWindow(kept(VERSIONS_READ));
    expect(rows).toHaveLength(VERSIONS_READ - 1);
    expect(next).toBe(2);
    expect(rows.at(-1)!.changes[0]!.kind).toBe('changed');
  });
});
