/** From what people vouched for to the outcome of a manual check. */
import type { Attestation } from '#core/facts/checklist';
import type { Judgement, PlaceResult } from '#core/facts/finding';
import type { Stage } from '#core/facts/situation';
import type { Check } from '#core/checks/kit/check';
import { formatMessage, defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';
import {
  codeOf,
  failed,
  inapplicable,
  NOT_YET_ATTESTED,
  passed,
  unsure,
  untested,
} from '#core/checks/kit/judgement';

/** A bare date counts until its day ends, UTC. */
export function endOf(date: string): number {
  return Date.parse(/^\d{4}-\d\d-\d\d$/.test(date) ? `${date}T23:59:59.999Z` : date);
}

const msg = defineMessages('attested', {
  said: '{what, select, notApplicable {not applicable} done {done} other {not done}}, says {by} on {day}{hasNote, select, yes {: {note}} other {}}',
  ended: 'attested by {by}, but only good until {day}',
  'other-stage': 'attested by {by} while the site was {then}; it is {now} now',
  'not-yet': 'not yet attested',
  'some-fail': '{bad} of {all}: {first}',
  'some-left': '{left} of {all} {first}',
  'all-attested': '{done} of {all} attested',
  'none-found': 'the audit found none',
  'none-applies': 'none of them applies',
});

const said = ({ doesNotApply, done, by, at, note }: Attestation): Message =>
  msg('said', {
    what: doesNotApply ? 'notApplicable' : done ? 'done' : 'not-done',
    by,
    day: at.slice(0, 10),
    hasNote: note ? 'yes' : 'no',
    note,
  });

/** Why an attestation no longer counts; undefined while it does. */
export function lapsed(a: Attestation, at: Date, stage?: Stage): Message | undefined {
  if (a.goodUntil && at.getTime() > endOf(a.goodUntil))
    return msg('ended', { by: a.by, day: a.goodUntil.slice(0, 10) });
  if (a.goodWhile && stage && a.goodWhile !== stage)
    return msg('other-stage', { by: a.by, then: a.goodWhile, now: stage });
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
  if (!whole) return { ...untested(NOT_YET_ATTESTED), ...base };
  const old = lapsed(whole, at, stage);
  if (old) return { ...untested(old), ...base };
  if (whole.doesNotApply) return inapplicable(said(whole));
  const found = said(whole);
  return {
    outcome: whole.done ? 'passed' : 'failed',
    found: formatMessage(found),
    ...codeOf(found),
    ...base,
  };
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
  if (!a || old) return unsure(subject, old ?? msg('not-yet'));
  if (a.doesNotApply) return undefined;
  return (a.done ? passed : failed)(subject, { expected: check.title, found: said(a) });
}

/** Sums up what is said one by one. @param all how many subjects there are */
function attestedEach(check: Check, places: PlaceResult[], all: number): Judgement {
  const expected = check.title;
  const bad = places.filter((p) => p.outcome === 'failed');
  if (bad[0]) {
    const first = codeOf(bad[0]);
    const found = places.length === 1 ? first : msg('some-fail', { bad: bad.length, all, first });
    return { outcome: 'failed', expected, found: formatMessage(found), ...codeOf(found), places };
  }
  const open = places.filter((p) => p.outcome === 'cantTell');
  if (open[0]) {
    const reason = msg('some-left', { left: open.length, all, first: codeOf(open[0]) });
    return { ...untested(reason), expected, places };
  }
  const found = msg('all-attested', { done: places.length, all });
  return { outcome: 'passed', expected, found: formatMessage(found), ...codeOf(found), places };
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
  if (!subjects.length) return inapplicable(msg('none-found'));
  const places = subjects.flatMap((s) => attestedSubject(check, s, own, given) ?? []);
  return places.length ? attestedEach(check, places, subjects.length) : inapplicable(msg('none-applies'));
}
