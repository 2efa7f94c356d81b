/** Where a launch stands: states from evidence and from what people said, what waits for what, and whether to go. */
import { describe, expect, it } from 'vitest';
import type { Proof, TemplateStep } from '#core/facts/launch';
import { BUILT_IN_TEMPLATE } from './built-in-template';
import {
  actionsOf,
  isSettled,
  goOf,
  HOUR_MS,
  settled,
  sheetOf,
  type KeptStep,
  type Seen,
  type SheetInput,
  type StepState,
  type Turn,
} from './sheet';

const PROOF: Proof = { kind: 'check', environment: 'live', check: 'a.b' };
const step = (id: string, more: Partial<TemplateStep> = {}): TemplateStep => ({
  id,
  title: id,
  what: '',
  phase: 'launch',
  offsetHours: 0,
  when: 'always',
  who: 'agency',
  after: [],
  proofs: [],
  ...more,
});
const sheet = (
  steps: TemplateStep[],
  {
    kept = {},
    seen,
    ...rest
  }: Partial<Omit<SheetInput, 'kept' | 'seen'>> & { kept?: Record<string, KeptStep>; seen?: Seen } = {},
) =>
  sheetOf({
    template: { steps },
    conditions: new Set(['always']),
    kept: new Map(Object.entries(kept)),
    seen: () => seen,
    titleOf: (proof) => `title of ${proof.check ?? proof.kind}`,
    plannedAt: 1_000_000,
    oldTtl: 3600,
    ...rest,
  });
const seen = (outcome: Seen['outcome'], at = 100): Seen => ({ outcome, at, title: 'A', found: 'x' });
const said = (at = 50): KeptStep => ({ said: { by: 'Mara', at } });

describe('a step', () => {
  it.each<[string, KeptStep, Seen | undefined, string]>([
    ['nobody touched, without proof', {}, undefined, 'to do'],
    ['that was seen to be done', {}, seen('passed'), 'done'],
    ['that was seen not to be done', {}, seen('failed'), 'to do'],
    ['said to be done and never looked at', said(), undefined, 'to prove'],
    ['said to be done, and seen failing before', said(200), seen('failed', 100), 'to prove'],
    ['said to be done, and seen failing since', said(50), seen('failed', 100), 'went back'],
    ['said to be done, where nobody can tell', said(), seen('cantTell'), 'done'],
    ['said to be done, where only a person can tell', said(), seen('untested'), 'done'],
    ['said to be done, where nothing applies', said(), seen('inapplicable'), 'done'],
    ['where nothing applies, and nobody said', {}, seen('inapplicable'), 'to do'],
    ['proven once, and failing since', { provenAt: 50 }, seen('failed'), 'went back'],
    ['proven once, and not to be told now', { provenAt: 50 }, seen('cantTell'), 'to prove'],
    ['left out', { leftOut: { by: 'Mara', at: 1, reason: 'not here' } }, seen('failed'), 'left out'],
  ])('%s', (_, kept, what, state) => {
    expect(sheet([step('a', { proofs: [PROOF] })], { kept: { a: kept }, seen: what })[0]).toMatchObject({
      state,
    });
  });
  it('without proof is done when a person says so', () => {
    expect(sheet([step('a')], { kept: { a: said() } })[0]).toMatchObject({ state: 'done', isProven: false });
  });
  it('that does not belong here is not applicable, and nothing waits for it', () => {
    const [a, b] = sheet([step('a', { when: 'moves' }), step('b', { after: ['a'] })]);
    expect(a!.state).toBe('not applicable');
    expect(b).toMatchObject({ state: 'to do', waitsFor: [] });
  });
  it('waits for what has to be done before, unless that is left out', () => {
    const steps = [step('a'), step('b', { after: ['a'] })];
    expect(sheet(steps)[1]).toMatchObject({ state: 'waits', waitsFor: ['a'] });
    expect(sheet(steps, { kept: { a: { leftOut: { by: 'x', at: 1, reason: 'y' } } } })[1]).toMatchObject({
      state: 'to do',
    });
  });
  it('is not proven by what was seen before that it rests on was done', () => {
    const steps = [step('a'), step('b', { after: ['a'], proofs: [PROOF] })];
    const kept = { a: said(500) };
    expect(sheet(steps, { kept, seen: seen('passed', 499) })[1]).toMatchObject({ state: 'to do' });
    expect(sheet(steps, { kept, seen: seen('passed', 500) })[1]).toMatchObject({ state: 'done' });
  });
  it('is not proven by checks while it waits, but by what tells of the launch itself', () => {
    const steps = (proof: Proof) => [step('a'), step('b', { after: ['a'], proofs: [proof] })];
    expect(sheet(steps(PROOF), { seen: seen('passed') })[1]!.state).toBe('waits');
    expect(sheet(steps({ kind: 'records' }), { seen: seen('passed') })[1]!.state).toBe('done');
    const kept = { b: { provenAt: 100 } };
    expect(sheet(steps(PROOF), { seen: seen('passed'), kept })[1]!.state).toBe('done');
  });
  it('is proven by what tells of the launch itself, whenever that was seen', () => {
    const steps = [step('a'), step('b', { after: ['a'], proofs: [{ kind: 'watch' }] })];
    expect(sheet(steps, { kept: { a: said(500) }, seen: seen('passed', 100) })[1]!.state).toBe('done');
  });
  it('after the TTLs were lowered is not before the old ones have run out', () => {
    const steps = [step('ttl-lowered'), step('b', { after: ['ttl-lowered'] })];
    expect(sheet(steps, { kept: { 'ttl-lowered': said(1000) } })[1]!.notBefore).toBe(1000 + 3_600_000);
    expect(sheet(steps)[1]!.notBefore).toBeUndefined();
  });
  it('moves with the launch', () => {
    const [a] = sheet([step('a', { offsetHours: -24 })], { plannedAt: 100 * HOUR_MS });
    expect(a!.plannedAt).toBe(76 * HOUR_MS);
  });
  it('two that wait for each other end', () => {
    expect(sheet([step('a', { after: ['b'] }), step('b', { after: ['a'] })])).toHaveLength(2);
  });
});

describe('once somebody said go', () => {
  const before = (more: Partial<TemplateStep> = {}): TemplateStep =>
    step('a', { phase: 'week before', proofs: [PROOF], ...more });
  const wentAt = 1000;
  const proven: KeptStep = {
    provenAt: 50,
    provenBy: [{ ...PROOF, title: 'TTLs are low', outcome: 'passed', at: 50, auditId: 7 }],
  };
  it.each<[string, KeptStep, Seen | undefined, StepState]>([
    ['proven before, and failing since', proven, seen('failed', 2000), 'done'],
    ['proven before, and not applicable any more', proven, seen('inapplicable', 2000), 'done'],
    ['proven before, and gone from the findings', proven, undefined, 'done'],
    ['said to be done, where only a person can tell', said(), seen('untested'), 'done'],
    ['said to be done, which evidence refuted', said(), seen('failed', 20), 'open at go'],
    ['never touched', {}, undefined, 'open at go'],
    ['never touched, and seen to hold', {}, seen('passed'), 'done'],
  ])('a step before it that was %s', (_, kept, what, state) => {
    expect(sheet([before()], { kept: { a: kept }, seen: what, wentAt })[0]!.state).toBe(state);
  });
  it('its proof stays as it was seen then, with the audit', () => {
    const [one] = sheet([before()], { kept: { a: proven }, seen: seen('failed', 2000), wentAt });
    expect(one).toMatchObject({ doneAt: 50, isProven: true, proofs: proven.provenBy });
  });
  it('what is open holds nothing back, and does not count as done', () => {
    const steps = [before(), step('b', { after: ['a'] })];
    const [a, b] = sheet(steps, { wentAt });
    expect([a!.state, b!.state, b!.waitsFor]).toEqual(['open at go', 'to do', []]);
    expect(isSettled(a!)).toBe(false);
  });
  it('steps of the launch itself still go back', () => {
    const [one] = sheet([step('a', { proofs: [PROOF] })], {
      kept: { a: { provenAt: 50 } },
      seen: seen('failed', 2000),
      wentAt,
    });
    expect(one!.state).toBe('went back');
  });
});

it('a proof that was never seen has a title, and no id', () => {
  expect(sheet([step('a', { proofs: [PROOF] })])[0]!.proofs[0]!.title).toBe('title of a.b');
});

it('a site of one page has a short sheet', () => {
  const steps = [step('a', { isLong: true }), step('b', { after: ['a'] })];
  expect(sheet(steps, { isOnePage: true }).map((s) => s.state)).toEqual(['not applicable', 'to do']);
  expect(sheet(steps).map((s) => s.state)).toEqual(['to do', 'waits']);
});

it('what can be done now begins with what went back, then by its time', () => {
  const of = (id: string, state: StepState, plannedAt: number) => ({ id, state, plannedAt });
  const steps = [
    of('later', 'to do', 2),
    of('done', 'done', 0),
    of('soon', 'to do', 1),
    of('waits', 'waits', 0),
    of('back', 'went back', 9),
    of('look', 'to prove', 5),
  ];
  expect(actionsOf(steps).map((s) => s.id)).toEqual(['back', 'look', 'soon', 'later']);
});

describe('what evidence has changed', () => {
  const steps = [step('a', { proofs: [PROOF] })];
  it.each<[string, KeptStep, Seen | undefined, Turn[]]>([
    [
      'newly proven',
      {},
      seen('passed', 7),
      [{ id: 'a', provenAt: 7, provenBy: [{ ...PROOF, title: 'A', outcome: 'passed', at: 7, found: 'x' }] }],
    ],
    ['proven already', { provenAt: 3 }, seen('passed', 7), []],
    ['not any more', { provenAt: 3 }, seen('failed', 7), [{ id: 'a', provenAt: null }]],
    ['nobody can tell now', { provenAt: 3 }, seen('cantTell', 7), []],
    ['said by a person alone', said(), seen('untested'), []],
  ])('%s', (_, kept, what, turns) => {
    const map = new Map([['a', kept]]);
    expect(settled(sheet(steps, { kept: { a: kept }, seen: what }), map)).toEqual(turns);
  });
});

describe('go', () => {
  const free = { blockers: { failed: [], unsure: [] }, yes: 'passed' as const, conflicts: [] };
  const all = sheet([step('a', { phase: 'day before' }), step('b')], { kept: { a: said() } });
  it('when nothing stands against it; steps of the launch itself do not', () => {
    expect(goOf(all, free)).toEqual({ isGo: true, against: [], codes: [] });
  });
  it.each<[string, Parameters<typeof goOf>[1], RegExp]>([
    ['a blocker', { ...free, blockers: { failed: ['a.b', 'c.d'], unsure: [] } }, /^2 blockers open/],
    [
      'an undecided blocker',
      { ...free, blockers: { failed: [], unsure: ['a.b'] } },
      /1 blocker check .* is undecided/,
    ],
    ['no yes', { ...free, yes: null }, /has not said yes/],
    ['a stale yes', { ...free, yes: 'failed' }, /has changed since/],
    ['a yes that cannot be compared', { ...free, yes: 'cantTell' }, /cannot be told/],
    ['a conflict', { ...free, conflicts: ['CAA forbids it.'] }, /^CAA forbids it\.$/],
  ])('not with %s', (_, input, why) => {
    const { isGo, against, codes } = goOf(all, input);
    expect(isGo).toBe(false);
    expect(codes.length).toBeGreaterThan(0);
    expect(against.join(' ')).toMatch(why);
  });
  it('not while a step before the launch is open', () => {
    const open = sheet([step('a', { phase: 'day before' })]);
    expect(goOf(open, free).against).toEqual(['1 step before the launch is not done: a.']);
    expect(goOf(open, free).codes).toEqual(['step a']);
  });
});

it('the built-in sheet begins with what can be done, and the records wait for it', () => {
  const steps = sheetOf({
    template: BUILT_IN_TEMPLATE,
    conditions: new Set(['always', 'addressed', 'records', 'staging', 'mail']),
    kept: new Map(),
    seen: () => undefined,
    titleOf: ({ kind }) => kind,
    plannedAt: 0,
    oldTtl: 0,
  });
  const state = (id: string) => steps.find((s) => s.id === id)!.state;
  expect(state('ttl-lowered')).toBe('to do');
  expect(state('records-changed')).toBe('waits');
  expect(state('forward-set')).toBe('not applicable');
  expect(state('set-launched')).toBe('waits');
});
