import { describe, expect, it } from 'vitest';
import type { Finding } from '#core/facts/finding';
import type { FixCore, FixState } from '#core/facts/fix';
import { FIX_STATES, remarkCheck } from '#core/facts/fix';
import { afterAudit, afterLeavingOut, setState, manualStates } from './life';

const at = '2026-11-24T12:00:00.000Z';
const seen = (outcome: Finding['outcome'], more: Partial<Finding> = {}): Finding => ({
  check: 'https.hsts',
  section: 'https',
  title: 'T',
  fault: 'F',
  severity: 'major',
  weight: 5,
  credit: null,
  outcome,
  found: 'no header',
  code: 'x',
  places: [
    {
      place: 'a.example',
      outcome: outcome === 'failed' ? 'failed' : 'passed',
      found: 'no header',
      code: 'x',
    },
  ],
  ...more,
});
const fix = (state: FixState, more: Partial<FixCore> = {}): FixCore => ({
  state,
  places: [{ place: 'a.example', found: 'no header' }],
  returns: 0,
  ...more,
});

describe('what an audit does to a fix', () => {
  it('a new fault opens one, with its places and its first line of history', () => {
    expect(afterAudit(null, seen('failed'), at)).toEqual({
      fix: { state: 'open', places: [{ place: 'a.example', found: 'no header' }], returns: 0 },
      events: [{ kind: 'opened', by: 'audit', at, to: 'open', text: 'no header' }],
    });
    expect(afterAudit(null, seen('passed'), at)).toBeNull();
  });
  it.each([
    ['to verify', 'verified'],
    ['open', 'gone'],
    ['in progress', 'gone'],
    ['accepted', 'gone'],
  ] as const)('%s becomes %s when the check passes', (from, to) => {
    expect(afterAudit(fix(from), seen('passed'), at)).toMatchObject({
      fix: { state: to, places: [] },
      events: [{ from, to }],
    });
  });
  it.each(['verified', 'gone'] as const)('%s opens again when the fault comes back, and says so', (from) => {
    expect(afterAudit(fix(from, { returns: 1 }), seen('failed'), at)).toMatchObject({
      fix: { state: 'open', returns: 2 },
      events: [{ kind: 'came back' }],
    });
  });
  it('one to verify opens again when it is still seen', () => {
    expect(afterAudit(fix('to verify'), seen('failed'), at)).toMatchObject({
      fix: { state: 'open' },
      events: [{ kind: 'still seen' }],
    });
  });
  it('accepted stays while the acceptance covers it, and opens when it does not', () => {
    expect(afterAudit(fix('accepted'), seen('failed', { accepted: true }), at)).toMatchObject({
      fix: { state: 'accepted' },
      events: [],
    });
    expect(afterAudit(fix('accepted'), seen('failed'), at)).toMatchObject({ fix: { state: 'open' } });
    expect(afterAudit(fix('open'), seen('failed', { accepted: true }), at)).toMatchObject({
      fix: { state: 'accepted' },
    });
  });
  it.each(['cantTell', 'untested'] as const)('%s changes nothing', (outcome) => {
    expect(afterAudit(fix('to verify'), seen(outcome), at)).toBeNull();
  });
  it('a check that no longer applies or is no longer asked is gone', () => {
    expect(afterAudit(fix('open'), seen('inapplicable', { reason: 'not wanted: x' }), at)).toMatchObject({
      fix: { state: 'gone' },
      events: [{ text: 'not wanted: x' }],
    });
    expect(afterLeavingOut(fix('in progress'), at)).toMatchObject({ fix: { state: 'gone' } });
    expect(afterLeavingOut(fix('verified'), at)).toBeNull();
  });
  it('fewer places are noted and do not close it', () => {
    const two = fix('in progress', { places: [{ place: 'a' }, { place: 'b' }] });
    expect(afterAudit(two, seen('failed'), at)).toMatchObject({
      fix: { state: 'in progress' },
      events: [{ kind: 'places', text: '2 places before, 1 place now' }],
    });
  });
});

const BY = { check: 'metadata.title-present', by: 'Mara', at };

describe('what a person may do', () => {
  it('never sets verified, gone or accepted', () => {
    for (const from of FIX_STATES)
      for (const to of ['verified', 'gone', 'accepted'] as const)
        if (from !== to) expect(() => setState(fix(from), to, BY), `${from} ${to}`).toThrow(RangeError);
  });
  it('moves between open, in progress and to verify', () => {
    expect(setState(fix('open'), 'in progress', BY)).toMatchObject({
      fix: { state: 'in progress' },
      events: [{ kind: 'state', by: 'Mara', from: 'open', to: 'in progress' }],
    });
    expect(setState(fix('to verify'), 'open', BY).fix.state).toBe('open');
    expect(setState(fix('open'), 'open', BY).events).toEqual([]);
    expect(() => setState(fix('verified'), 'open', BY)).toThrow(/next audit/);
  });
  it('says itself that a client’s remark is done, since no audit sees it', () => {
    const remark = { ...BY, check: remarkCheck(7) };
    expect(manualStates('to verify', remark.check)).toContain('verified');
    expect(setState(fix('to verify'), 'verified', remark).fix.state).toBe('verified');
    expect(setState(fix('verified'), 'open', remark).fix.state).toBe('open');
    expect(() => setState(fix('open'), 'accepted', remark)).toThrow(RangeError);
  });
});
