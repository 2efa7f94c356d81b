import { describe, expect, it } from 'vitest';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge } from '#core/checks/engine/judge';
import { AT, brief, evidence, withHome } from '#core/checks/example-evidence';
import type { Evidence } from '#core/facts/evidence';
import { resultJson, resultText } from './result';

const judged = (e: Evidence) =>
  judge({
    evidence: e,
    brief: brief(),
    checklist: fullChecklist(),
    situation: 'live',
    at: AT,
    leaveOutHand: true,
  });
const good = evidence();

describe('the published JSON', () => {
  it('has the fields that scripts rest on, and no others', () => {
    const r = resultJson(good, 'live', judged(good));
    expect(Object.keys(r)).toEqual([
      'version',
      'target',
      'situation',
      'at',
      'score',
      'coverage',
      'provisional',
      'gate',
      'gateNote',
      'sections',
      'findings',
      'notes',
    ]);
    expect(Object.keys(r.sections)).toEqual([
      'identity',
      'https',
      'domain',
      'indexing',
      'verification',
      'metadata',
      'sharing',
      'delivery',
    ]);
    for (const f of r.findings) {
      expect(Object.keys(f)).toEqual([
        'check',
        'outcome',
        'severity',
        'weight',
        'credit',
        'expected',
        'found',
        'reason',
        'places',
      ]);
      for (const p of f.places) expect(Object.keys(p)).toEqual(['place', 'outcome', 'expected', 'found']);
    }
    expect(r).toMatchObject({ version: 1, score: 100, gate: 'clear', at: AT.toISOString() });
  });
  it('credit is a share, and nothing where nothing was decided', () => {
    const r = resultJson(good, 'live', judged(withHome({ head: '<meta name="robots" content="noindex">' })));
    expect(r.findings.find((f) => f.check === 'indexing.let-in')!.credit).toBeCloseTo(2 / 3);
    expect(r.findings.find((f) => f.outcome === 'inapplicable')!.credit).toBeNull();
  });
});

describe('the text for a terminal', () => {
  it('says score, coverage and gate, names each section, faults first', () => {
    const bad = withHome({ title: 'Untitled' });
    const text = resultText(bad, 'live', judged(bad), true);
    expect(text).toMatch(/^https:\/\/marsh-choir\.example\/ \(live\)/);
    expect(text).toMatch(/Score \d+, coverage \d+ %, gate clear/);
    const identity = text
      .slice(text.indexOf('Identity:'), text.indexOf('HTTPS:'))
      .split('\n')
      .filter((l) => l.startsWith('  ') && !l.startsWith('      '));
    expect(identity[0]).toContain('failed');
    expect(identity.at(-1)).toMatch(/passed|inapplicable/);
    expect(text).toContain('Checks by hand are left out');
  });
  it('control characters and direction marks of audited sites never reach the terminal', () => {
    const bad = withHome({ title: 'Home \u001b[31mred\u0007 \u202egnp' });
    const text = resultText(bad, 'live', judged(bad), false);
    expect(text).not.toMatch(/[\u0000-\u0008\u000b-\u001f\u007f\u202a-\u202e]/);
    expect(text).not.toContain('left out');
  });
});
