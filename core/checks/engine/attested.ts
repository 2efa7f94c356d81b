/** From what people vouched for to the outcome of a check done by hand. */
import type { Attestation } from '#core/facts/checklist';
import type { Judgement, PlaceResult } from '#core/facts/finding';
import type { Stage } from '#core/facts/situation';
import type { Check } from '#core/checks/kit/check';
import { failed, inapplicable, NOT_YET_ATTESTED, passed, unsure } from '#core/checks/kit/judgement';

/** A bare date counts until its day ends, UTC. */
export function endOf(date: string): number {
  return Date.parse(/^\d{4}-\d\d-\d\d$/.test(date) ? `${date}T23:59:59.999Z` : date);
}

const said = (a: Attestation): string =>
  `${a.doesNotApply ? 'does not apply' : a.done ? 'done' : 'not done'}, says ${a.by} on ${a.at.slice(0, 10)}${a.note ? `: ${a.note}` : ''}`;

/** Why an attestation no longer counts; undefined while it does. */
export function lapsed(a: Attestation, at: Date, stage?: Stage): string | undefined {
  if (a.goodUntil && at.getTime() > endOf(a.goodUntil))
    return `attested by ${a.by}, but only good until ${a.goodUntil.slice(0, 10)}`;
  if (a.goodWhile && stage && a.goodWhile !== stage)
    return `attested by ${a.by} while the site was ${a.goodWhile}; it is ${stage} now`;
  return undefined;
}

const newest = (list: readonly Attestation[]): Attestation | undefined =>
  [...list].sort((a, b) => b.at.localeCompare(a.at))[0];

/**
 * @param subjects what the check is about one by one, such as each form; undefined where it is about the site
 * as a whole
 */
export function attested(
  check: Check,
  attestations: readonly Attestation[],
  given: { at: Date; stage?: Stage; subjects?: readonly string[] },
): Judgement {
  const own = attestations.filter((a) => a.check === check.id);
  const whole = newest(own.filter((a) => a.place === undefined));
  const base = { expected: check.title, places: [] };
  if (!given.subjects || (whole && !own.some((a) => a.place !== undefined))) {
    if (!whole) return { outcome: 'untested', reason: NOT_YET_ATTESTED, ...base };
    const old = lapsed(whole, given.at, given.stage);
    if (old) return { outcome: 'untested', reason: old, ...base };
    if (whole.doesNotApply) return inapplicable(said(whole));
    return { outcome: whole.done ? 'passed' : 'failed', found: said(whole), ...base };
  }
  if (!given.subjects.length) return inapplicable('the audit found none');
  const out: PlaceResult[] = [];
  for (const subject of given.subjects) {
    const a = newest(own.filter((x) => x.place === subject || x.place === undefined));
    const old = a && lapsed(a, given.at, given.stage);
    if (!a || old) out.push(unsure(subject, old ?? 'not yet attested'));
    else if (!a.doesNotApply)
      out.push((a.done ? passed : failed)(subject, { expected: check.title, found: said(a) }));
  }
  if (!out.length) return inapplicable('none of them applies');
  const bad = out.filter((p) => p.outcome === 'failed'),
    open = out.filter((p) => p.outcome === 'cantTell');
  const count = (n: number) => `${n} of ${given.subjects!.length}`;
  if (bad.length)
    return {
      outcome: 'failed',
      expected: check.title,
      found: out.length === 1 ? bad[0]!.found : `${count(bad.length)}: ${bad[0]!.found}`,
      places: out,
    };
  if (open.length)
    return {
      outcome: 'untested',
      expected: check.title,
      reason: `${count(open.length)} ${open[0]!.reason}`,
      places: out,
    };
  return { outcome: 'passed', expected: check.title, found: `${count(out.length)} attested`, places: out };
}
