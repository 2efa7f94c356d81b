/** Manual checks: who vouched, for what, until when. */
import { describe, expect, it } from 'vitest';
import type { Attestation } from '#core/facts/checklist';
import { checkById } from '#core/checks/catalogue/index';
import { attested, endOf, lapsed } from './attested';

const check = checkById.get('delivery.backup')!;
const AT = new Date('2026-11-24T12:00:00Z');
const said = (change: Partial<Attestation> = {}): Attestation => ({
  check: check.id,
  done: true,
  by: 'Mara',
  at: '2026-11-01T09:00:00Z',
  ...change,
});
const ask = (list: Attestation[], subjects?: string[], stage: 'building' | 'launched' = 'launched') =>
  attested(check, list, { at: AT, stage, subjects });

describe('a check about the site as a whole', () => {
  it('is untested until somebody vouches', () => {
    expect(ask([])).toMatchObject({ outcome: 'untested', reason: 'manual, not yet attested' });
    expect(ask([said({ check: 'delivery.upkeep' })]).outcome).toBe('untested');
  });
  it('passes, fails or is not applicable, in the words of who said so', () => {
    expect(ask([said({ note: 'restored once' })])).toMatchObject({
      outcome: 'passed',
      found: 'done, says Mara on 2026-11-01: restored once',
    });
    expect(ask([said({ done: false })])).toMatchObject({
      outcome: 'failed',
      found: 'not done, says Mara on 2026-11-01',
    });
    expect(ask([said({ doesNotApply: true, note: 'static files' })])).toMatchObject({
      outcome: 'inapplicable',
      reason: 'not applicable, says Mara on 2026-11-01: static files',
    });
  });
  it('the newest word counts', () => {
    expect(ask([said(), said({ done: false, at: '2026-11-02T09:00:00Z' })]).outcome).toBe('failed');
  });
  it.each([
    ['2026-11-23', 'untested'],
    ['2026-11-24', 'passed'],
    ['2026-11-24T11:59:59Z', 'untested'],
    ['2026-11-24T12:00:00Z', 'passed'],
  ])('good until %s: %s', (goodUntil, outcome) => {
    expect(ask([said({ goodUntil })]).outcome).toBe(outcome);
  });
  it('or until the stage changes', () => {
    expect(ask([said({ goodWhile: 'launched' })]).outcome).toBe('passed');
    expect(ask([said({ goodWhile: 'building' })])).toMatchObject({
      outcome: 'untested',
      reason: 'attested by Mara while the site was building; it is launched now',
    });
    expect(lapsed(said({ goodWhile: 'building' }), AT)).toBeUndefined();
  });
  it('a bare date ends with its day', () => {
    expect(endOf('2026-11-24')).toBe(Date.parse('2026-11-24T23:59:59.999Z'));
  });
});

describe('a check about several things, such as forms', () => {
  const forms = ['#contact at /', '#order at /shop'];
  const one = (place: string, change: Partial<Attestation> = {}) => said({ place, ...change });
  it('waits for each of them', () => {
    expect(ask([one(forms[0]!)], forms)).toMatchObject({
      outcome: 'untested',
      reason: '1 of 2 not yet attested',
    });
  });
  it('passes once each is attested, and one word for all does too', () => {
    expect(ask([one(forms[0]!), one(forms[1]!)], forms)).toMatchObject({
      outcome: 'passed',
      found: '2 of 2 attested',
    });
    expect(ask([said()], forms).outcome).toBe('passed');
  });
  it('one that is not done fails, also beside an older word for all', () => {
    const bad = ask([said(), one(forms[1]!, { done: false, at: '2026-11-03T09:00:00Z' })], forms);
    expect(bad).toMatchObject({ outcome: 'failed', found: '1 of 2: not done, says Mara on 2026-11-03' });
    expect(bad.places.map((p) => p.outcome)).toEqual(['passed', 'failed']);
  });
  it('a newer word for all wins over an older one for one', () => {
    expect(ask([one(forms[1]!, { done: false }), said({ at: '2026-11-05T09:00:00Z' })], forms).outcome).toBe(
      'passed',
    );
  });
  it('one that is not applicable is left out; none at all makes the check inapplicable', () => {
    expect(
      ask([one(forms[0]!), one(forms[1]!, { doesNotApply: true, note: 'a demo' })], forms),
    ).toMatchObject({ outcome: 'passed', found: '1 of 2 attested' });
    expect(ask([one(forms[0]!, { doesNotApply: true, note: 'x' })], [forms[0]!]).outcome).toBe(
      'inapplicable',
    );
    expect(ask([], [])).toMatchObject({ outcome: 'inapplicable', reason: 'the audit found none' });
  });
  it('a new form is untested though the old ones are attested', () => {
    expect(ask([one(forms[0]!), one(forms[1]!)], [...forms, '#new at /x']).outcome).toBe('untested');
  });
});
