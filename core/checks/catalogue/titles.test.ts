import { describe, expect, it } from 'vitest';
import { headingOf, TITLE_LENGTH } from '#core/facts/heading';
import { CATALOGUE } from './index';

describe('the two titles of a check', () => {
  it.each(CATALOGUE.map((c) => [c.id, c.title, c.fault]))('%s', (_, title, fault) => {
    for (const text of [title, fault]) {
      expect(text.length).toBeGreaterThan(6);
      expect(text.length).toBeLessThanOrEqual(TITLE_LENGTH);
      expect(text).not.toMatch(/[.!]$/);
    }
    expect(fault).not.toBe(title);
  });

  it('each belongs to one check alone', () => {
    const all = CATALOGUE.flatMap((c) => [c.title, c.fault]);
    expect(all.filter((text, i) => all.indexOf(text) !== i)).toEqual([]);
  });

  it.each([
    ['failed', 'HSTS is missing'],
    ['passed', 'HSTS is set'],
    ['cantTell', 'HSTS is set'],
    ['untested', 'HSTS is set'],
    ['inapplicable', 'HSTS is set'],
  ] as const)('%s is listed as “%s”', (outcome, heading) => {
    expect(headingOf({ title: 'HSTS is set', fault: 'HSTS is missing', outcome })).toBe(heading);
  });

  it('what was stored before checks had two titles keeps its one', () => {
    expect(headingOf({ title: 'HSTS is set', fault: '', outcome: 'failed' })).toBe('HSTS is set');
  });
});
