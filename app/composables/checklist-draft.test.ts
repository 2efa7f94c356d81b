/** The composer's rows: a checklist in, the same out; order, own checks, changes. */
import { describe, expect, it } from 'vitest';
import { builtInChecklists } from '#core/checks/engine/built-in';
import { checklistFaults } from '#core/checks/engine/checklist-faults';
import { CATALOGUE } from '#core/checks/catalogue/index';
import type { Checklist } from '#core/facts/checklist';
import { checklistOf, moveRow, ownId, ownRow, rowsOf } from './checklist-draft';

const about = { name: 'Ours', version: 4, description: '' };
const small: Checklist = {
  name: 'Ours',
  version: 4,
  items: [
    { check: 'https.http-redirects', severity: 'minor', weight: 3.5 },
    { check: 'https.answers', on: false },
    { check: 'https.certificate-days', parameters: { days: 30 }, title: 'Renewed', note: 'ours' },
    { check: 'own.ring' },
  ],
  own: [{ id: 'own.ring', section: 'https', title: 'Ring', severity: 'major', situations: ['live'] }],
};
const ids = (rows: { id: string; section: string }[], section = 'https') =>
  rows.filter((r) => r.section === section).map((r) => r.id);

describe('rows', () => {
  it('hold the whole catalogue once and every own check, the checklist’s order first, what it does not mention off', () => {
    const rows = rowsOf(small);
    expect(rows).toHaveLength(CATALOGUE.length + 1);
    expect(ids(rows).slice(0, 4)).toEqual([
      'https.http-redirects',
      'https.answers',
      'https.certificate-days',
      'own.ring',
    ]);
    expect(rows.filter((r) => r.on).map((r) => r.id)).toEqual([
      'https.http-redirects',
      'https.certificate-days',
      'own.ring',
    ]);
  });
  it('come out as what went in', () => {
    const out = checklistOf(rowsOf(small), about);
    expect(out.items.filter((i) => i.on !== false)).toEqual([
      small.items[0],
      { check: 'https.certificate-days', parameters: { days: 30 }, title: 'Renewed', note: 'ours' },
      { check: 'own.ring', severity: 'major' },
    ]);
    expect(out.own).toEqual(small.own);
    expect(checklistFaults(out)).toEqual([]);
    expect(rowsOf(out)).toEqual(rowsOf(small));
  });
  it.each(builtInChecklists().map((l) => [l.name, l] as const))(
    '%s asks the same after the composer',
    (_, list) => {
      expect(
        new Set(
          checklistOf(rowsOf(list), about)
            .items.filter((i) => i.on !== false)
            .map((i) => i.check),
        ),
      ).toEqual(new Set(list.items.filter((i) => i.on !== false).map((i) => i.check)));
    },
  );
  it('a weight or limit that was typed wrong is told, not lost', () => {
    const rows = rowsOf(small).map((r) =>
      r.id === 'https.certificate-days' ? { ...r, parameters: { days: 'many' } } : r,
    );
    expect(
      checklistFaults(checklistOf(rows, about))
        .map((f) => f.message)
        .join(),
    ).toMatch(/certificate-days/);
  });
});

describe('order', () => {
  const rows = rowsOf(small);
  it('moves before another of the section, to its end, and never into another section', () => {
    expect(ids(moveRow(rows, 'own.ring', 'https.http-redirects')).slice(0, 2)).toEqual([
      'own.ring',
      'https.http-redirects',
    ]);
    expect(ids(moveRow(rows, 'https.http-redirects', undefined)).at(-1)).toBe('https.http-redirects');
    expect(moveRow(rows, 'own.ring', 'domain.resolves')).toEqual(rows);
    expect(moveRow(rows, 'own.ring', 'own.ring')).toEqual(rows);
    expect(moveRow(rows, 'none', undefined)).toEqual(rows);
    expect(moveRow(rows, 'own.ring', 'https.answers')).toHaveLength(rows.length);
  });
});

describe('own checks', () => {
  it('get an id from their words, not yet taken', () => {
    expect(ownId('Ring the client!', new Set())).toBe('own.ring-the-client');
    expect(ownId('Ring the client!', new Set(['own.ring-the-client']))).toBe('own.ring-the-client-2');
    expect(ownId('日本', new Set())).toBe('own.check');
    expect(ownId('Crème', new Set())).toMatch(/^own\.[a-z0-9-]+$/);
  });
  it('a new one is on and by hand', () => {
    expect(ownRow(small.own![0]!)).toMatchObject({ on: true, byHand: true, catalogueTitle: 'Ring' });
  });
});
