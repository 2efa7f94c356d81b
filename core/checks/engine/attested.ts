/** From what people vouched for to the outcome of a manual check. */
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
  `${a.doesNotApply ? 'not applicable' : a.done ? 'done' : 'not done'}, says ${a.by} on ${a.at.slice(0, 10)}${a.note ? `: ${a.note}` : ''}`;

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

interface Given {
  at: Date;
  stage?: Stage;
}

/** One attestation for the site as a whole. */
function attestedWhole(check: Check, whole: Attestation | undefined, { at, stage }: Given): Judgement {
  const base = { expected: check.title, places: [] };
  if (!whole) return { outcome: 'untested', reason: NOT_YET_ATTESTED, ...base };
  const old = lapsed(whole, at, stage);
  if (old) return { outcome: 'untested', reason: old, ...base };
  if (whole.doesNotApply) return inapplicable(said(whole));
  return { outcome: whole.done ? 'passed' : 'failed', found: said(whole), ...base };
}

/** What is said of one subject; nothing where it is not applicable. */
function attestedSubject(
  check: Check,
  subject: string,
  own: readonly Attestation[],
  { at, stage }: Given,
): PlaceResult | undefined {
  const a = newest(own.filter((x) => x.place === subject || x.place === undefined));
  const old = a && lapsed(a, at, stage);
  if (!a || old) return unsure(subject, old ?? 'not yet attested');
  if (a.doesNotApply) return undefined;
  return (a.done ? passed : failed)(subject, { expected: check.title, found: said(a) });
}

/** Sums up what is said one by one. @param all how many subjects there are */
function attestedEach(check: Check, places: PlaceResult[], all: number): Judgement {
  const expected = check.title;
  const count = (n: number): string => `${n} of ${all}`;
  const bad = places.filter((p) => p.outcome === 'failed');
  if (bad[0]) {
    const found = places.length === 1 ? bad[0].found : `${count(bad.length)}: ${bad[0].found}`;
    return { outcome: 'failed', expected, found, places };
  }
  const open = places.filter((p) => p.outcome === 'cantTell');
  if (open[0])
    return { outcome: 'untested', expected, reason: `${count(open.length)} ${open[0].reason}`, places };
  return { outcome: 'passed', expected, found: `${count(places.length)} attested`, places };
}

/**
 * What was vouched for of one manual check.
 * @param given.subjects what the check is about one by one, such as each form; undefined where it is about
 * the site as a whole
 */
export function attested(
  check: Check,
  attestations: readonly Attestation[],
  given: Given & { subjects?: readonly string[] },
): Judgement {
  const own = attestations.filter((a) => a.check === check.id);
  const whole = newest(own.filter((a) => a.place === undefined));
  const { subjects } = given;
  if (!subjects || (whole && !own.some((a) => a.place !== undefined)))
    return attestedWhole(check, whole, given);
  if (!subjects.length) return inapplicable('the audit found none');
  const places = subjects.flatMap((s) => attestedSubject(check, s, own, given) ?? []);
  return places.length ? attestedEach(check, places, subjects.length) : inapplicable('none of them applies');
}
