import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { brief, evidence, withHome } from '#core/checks/example-evidence';
import { newsBetween } from '#core/compare/news';
import type { Acceptance } from '#core/facts/checklist';
import type { FixCore } from '#core/facts/fix';
import { afterAudit } from '#core/fixes/life';
import { isResting, type LedgerLine } from '#core/score/ledger';
import { englishMessages } from '#core/text/messages';
import { withText } from '#core/text/message-text';
import { fullChecklist } from './checklist';
import { judge, type AuditInput, type JudgedFinding } from './judge';

const words = englishMessages() as Map<string, string>;
const kept = new Map(words);

/** Every message says something else. */
function reword(): void {
  for (const [code, text] of kept) words.set(code, `in other words ${text} (§)`);
}

// a page that may be listed, without a description and with a broken link: blockers, majors and minors
const bad = withHome({ head: '<meta name="robots" content="noindex">', description: '' });
const input: AuditInput = {
  evidence: bad,
  brief: brief(),
  checklist: fullChecklist(),
  situation: 'live',
  at: new Date(bad.finishedAt),
};
const failing = (findings: readonly JudgedFinding[]) => findings.filter((f) => f.outcome === 'failed');

describe('when every message is reworded', () => {
  const before = judge(input);
  const acceptances: Acceptance[] = failing(before).map((f) => ({
    check: f.check,
    places: f.places.map(({ place, code, data }) => ({ place, code, data })),
    reason: 'agreed',
    by: 'Mara',
    seconded: 'Joss',
    until: '2099-01-01',
  }));
  beforeEach(reword);
  afterEach(() => {
    for (const [code, text] of kept) words.set(code, text);
  });

  it('findings say it in other words', () => {
    expect(failing(before).length).toBeGreaterThan(3);
    const after = judge(input);
    const said = (f: JudgedFinding): string => f.found ?? f.reason ?? '';
    expect(after.filter((f) => said(f).includes('in other words')).length).toBeGreaterThan(20);
    // and so does what was kept, once it is told
    for (const [i, f] of before.entries()) expect(said(withText(f)), f.check).toBe(said(after[i]!));
  });

  it('codes and data are the same', () => {
    const bare = (findings: readonly JudgedFinding[]) =>
      findings.map(({ check, outcome, code, data, places }) => ({
        check,
        outcome,
        code,
        data,
        places: places.map((p) => [p.place, p.outcome, p.code, p.data]),
      }));
    expect(bare(judge(input))).toEqual(bare(before));
  });

  it('what was accepted stays accepted', () => {
    const accepted = judge({ ...input, acceptances }).filter((f) => f.accepted);
    const withPlaces = failing(before).filter((f) => f.places.length);
    expect(accepted.map((f) => f.check)).toEqual(withPlaces.map((f) => f.check));
  });

  it('no fix changes its state', () => {
    for (const state of ['open', 'in progress', 'accepted'] as const) {
      const fix: FixCore = { state, places: [], returns: 0 };
      for (const [i, f] of judge({ ...input, acceptances }).entries()) {
        const then = { ...before[i]!, accepted: f.accepted };
        expect(afterAudit(fix, f, input.at.toISOString())?.fix.state, f.check).toBe(
          afterAudit(fix, then, input.at.toISOString())?.fix.state,
        );
      }
    }
  });

  it('recipes are the same', () => {
    const recipes = (findings: readonly JudgedFinding[]) => findings.map((f) => [f.check, f.recipe]);
    const parked = evidence();
    const [host] = parked.hosts;
    host!.landing = {
      ...host!.landing!,
      facts: { ...host!.landing!.facts, text: 'this domain is parked here' },
    };
    const given = {
      ...input,
      evidence: parked,
      profile: { name: 'Fennel', marks: { parking: ['is parked here'] } },
    };
    const reworded = recipes(judge(given));
    for (const [code, text] of kept) words.set(code, text);
    expect(reworded).toEqual(recipes(judge(given)));
    expect(reworded.some(([check, recipe]) => check === 'domain.connected' && recipe)).toBe(true);
  });

  it('nothing is news', () => {
    const none = new Set<string>();
    expect(
      newsBetween({ gate: 'held', findings: before }, { gate: 'held', findings: judge(input) }, none, none),
    ).toEqual([]);
  });

  it('what rests on another check still does', () => {
    const silent = { ...evidence(), pages: [] };
    const line = (f: JudgedFinding): LedgerLine => ({
      ...f,
      accepted: false,
      byHand: false,
      expected: null,
      found: f.reason ?? null,
      points: 0,
    });
    const resting = () =>
      judge({ ...input, evidence: silent })
        .map(line)
        .filter(isResting)
        .map((f) => f.check);
    const reworded = resting();
    for (const [code, text] of kept) words.set(code, text);
    expect(reworded).toEqual(resting());
    expect(reworded.length).toBeGreaterThan(20);
  });
});
