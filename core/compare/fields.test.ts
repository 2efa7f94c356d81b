import { describe, expect, it } from 'vitest';
import { fieldChanges } from './fields';

describe('what changed between two versions', () => {
  it('added, changed, removed; the same is no change', () => {
    expect(
      fieldChanges(
        { name: 'A', phone: '1', languages: ['en'], tagline: 'same' },
        { name: 'B', languages: ['en', 'cy'], tagline: 'same', mail: 'yes' },
      ),
    ).toEqual([
      { field: 'name', kind: 'changed', from: 'A', to: 'B' },
      { field: 'phone', kind: 'removed', from: '1' },
      { field: 'languages', kind: 'changed', from: 'en', to: 'en, cy' },
      { field: 'mail', kind: 'added', to: 'yes' },
    ]);
    expect(fieldChanges({}, {})).toEqual([]);
    expect(fieldChanges({ records: [], phone: '' }, { phone: null, marks: {} })).toEqual([]);
    expect(fieldChanges({ records: [] }, { records: ['x'] })).toEqual([
      { field: 'records', kind: 'added', to: 'x' },
    ]);
  });
  it('the order of keys is no change, that of a list is one', () => {
    const [a, b] = [
      { kind: 'meta', value: 'x' },
      { value: 'x', kind: 'meta' },
    ];
    expect(fieldChanges({ tokens: [a] }, { tokens: [b] })).toEqual([]);
    expect(fieldChanges({ languages: ['en', 'cy'] }, { languages: ['cy', 'en'] })).toHaveLength(1);
  });
  it('records, reasons and objects read as people write them, and long ones are cut', () => {
    expect(fieldChanges({}, { records: [{ name: 'a.example', type: 'A', value: '192.0.2.1' }] })[0]!.to).toBe(
      'a.example A 192.0.2.1',
    );
    expect(fieldChanges({}, { notWanted: { phone: 'nobody calls' } })[0]!.to).toBe('phone: nobody calls');
    expect(fieldChanges({}, { marks: { parking: ['resting'] } })[0]!.to).toBe('parking: ["resting"]');
    expect(fieldChanges({}, { name: 'x'.repeat(400) })[0]!.to).toHaveLength(301);
  });
});
