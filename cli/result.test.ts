import { describe, expect, it } from 'vitest';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge } from '#core/checks/engine/judge';
import { AT, brief, brokenChain, evidence, withHome } from '#core/checks/example-evidence';
import type { Evidence } from '#core/facts/evidence';
import { resultJson, resultText } from './result';

const judged = (e: Evidence) =>
  judge({
    evidence: e,
    brief: brief(),
    checklist: fullChecklist(),
    situation: 'live',
    at: AT,
    skipManual: true,
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
      'lost',
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
        'title',
        'fault',
        'outcome',
        'severity',
        'weight',
        'credit',
        'lost',
        'expected',
        'found',
        'reason',
        'code',
        'data',
        'notes',
        'places',
      ]);
      for (const p of f.places)
        expect(Object.keys(p)).toEqual(['place', 'outcome', 'expected', 'found', 'code', 'data']);
    }
    expect(r).toMatchObject({ version: 2, score: 100, lost: 0, gate: 'clear', at: AT.toISOString() });
  });
  it('credit is a share, and nothing where nothing was decided', () => {
    const r = resultJson(good, 'live', judged(withHome({ head: '<meta name="robots" content="noindex">' })));
    const letIn = r.findings.find((f) => f.check === 'indexing.let-in')!;
    expect(letIn.credit).toBeCloseTo(2 / 3);
    // 20 x (1/2 + 1/2 x 1/3)
    expect(letIn.lost).toBeCloseTo(40 / 3);
    expect(r.sections.indexing!.lost).toBeGreaterThanOrEqual(letIn.lost);
    expect(r.findings.find((f) => f.outcome === 'inapplicable')!.credit).toBeNull();
  });
});

describe('the text for a terminal', () => {
  it('says score, coverage and gate, faults first with their titles, found and how to fix them, passed ones counted', () => {
    const bad = withHome({ title: 'Untitled' });
    const text = resultText(bad, 'live', judged(bad), { handLeftOut: true, hasBrief: true });
    expect(text).toMatch(/^https:\/\/marsh-choir\.example\/ \(live\)/);
    expect(text).toMatch(/Score \d+, [\d.]+ points lost, coverage \d+ %, gate clear/);
    const lines = text.split('\n');
    const at = (start: string) => lines.findIndex((l) => l.startsWith(start));
    expect(at('Failed: ')).toBeGreaterThan(0);
    expect(at('Failed: ')).toBeLessThan(at('Passed: '));
    const fault = lines.findIndex((l) => l.includes('(identity.no-default-title)'));
    expect(lines[fault]).toMatch(/^ {2}MAJOR {2}\S/);
    expect(lines[fault + 1]).toMatch(/expected .+; found .*Untitled/);
    expect(lines.slice(fault, fault + 8).some((l) => l.includes('how to fix it: '))).toBe(true);
    expect(text).not.toContain('Without a brief');
    expect(text).toContain('Manual checks are left out');
  });
  it('without a brief it says what one would decide', () => {
    const text = resultText(good, 'live', judged(good), { handLeftOut: false, hasBrief: false });
    expect(text).toMatch(/brief/);
  });
  it('where nothing was reached that comes first, there is no score, and what rests on it is counted', () => {
    const chain = brokenChain(
      'https://marsh-choir.example/',
      'no-name',
      'marsh-choir.example does not exist',
    );
    const silent = { http: chain, https: chain, httpPath: chain, httpsPath: chain, landing: undefined };
    const gone = evidence({
      hosts: good.hosts.map((h) => ({ ...h, ...silent, tls: { ...h.tls, chain: [], error: chain.error } })),
      pages: [{ ...good.pages[0]!, chain, facts: undefined }],
    });
    const text = resultText(gone, 'live', judged(gone), { handLeftOut: true, hasBrief: true });
    expect(text.split('\n')[1]).toContain('marsh-choir.example does not exist');
    expect(text).toMatch(/Score –/);
    expect(text).toMatch(/\d+ checks rest on domain\.resolves: /);
    expect(text.split('\n').length).toBeLessThan(60);
    expect(resultJson(gone, 'live', judged(gone))).toMatchObject({
      score: null,
      unreached: chain.error!.message,
    });
  });
  it('control characters and direction marks of audited sites never reach the terminal', () => {
    const bad = withHome({ title: 'Home \u001b[31mred\u0007 \u202egnp' });
    const text = resultText(bad, 'live', judged(bad), { handLeftOut: false, hasBrief: true });
    expect(text).not.toMatch(/[\u0000-\u0008\u000b-\u001f\u007f\u202a-\u202e]/);
    expect(text).not.toContain('left out');
  });
});
