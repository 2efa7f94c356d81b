/** The life of a fix: what an audit does to it, and what a person may do. */
import { quantity } from '#core/text/quantity';
import type { Finding } from '#core/facts/finding';
import { CLOSED_STATES, isRemarkCheck, type FixCore, type FixEvent, type FixState } from '#core/facts/fix';

export interface Step {
  fix: FixCore;
  events: FixEvent[];
}

const PLACE_CAP = 500;

function placesOf(finding: Finding): FixCore['places'] {
  const bad = finding.places.filter((p) => p.outcome === 'failed');
  return bad
    .slice(0, PLACE_CAP)
    .map((p) => ({ place: p.place, ...(p.found !== undefined ? { found: p.found } : {}) }));
}

/**
 * What one audit's finding does to the fix of its environment and check.
 * @param fix the fix as it stood, or null when there is none
 * @param at when the audit was made, ISO 8601
 * @returns the fix and its new history lines; null where there is none and none is needed
 */
export function afterAudit(fix: FixCore | null, finding: Finding, at: string): Step | null {
  if (finding.outcome === 'failed') return afterFailure(fix, finding, at);
  if (!fix || CLOSED_STATES.has(fix.state)) return null;
  if (finding.outcome === 'passed') {
    const to = fix.state === 'to verify' ? 'verified' : 'gone';
    return { fix: { ...fix, state: to, places: [] }, events: [line(fix, at, to, to, finding.found)] };
  }
  if (finding.outcome === 'inapplicable')
    return {
      fix: { ...fix, state: 'gone', places: [] },
      events: [line(fix, at, 'gone', 'gone', finding.reason)],
    };
  // undecided: nothing was seen that could close or change it
  return null;
}

/** A line of the history that an audit writes. */
function line(
  fix: FixCore | null,
  at: string,
  kind: FixEvent['kind'],
  to: FixState,
  text?: string,
): FixEvent {
  return { kind, by: 'audit', at, ...(fix ? { from: fix.state } : {}), to, ...(text ? { text } : {}) };
}

function afterFailure(fix: FixCore | null, finding: Finding, at: string): Step {
  const places = placesOf(finding);
  if (finding.accepted) {
    if (fix?.state === 'accepted') return { fix: { ...fix, places }, events: [] };
    return {
      fix: { state: 'accepted', places, returns: fix?.returns ?? 0 },
      events: [line(fix, at, 'accepted', 'accepted', 'all its places are accepted')],
    };
  }
  if (!fix)
    return {
      fix: { state: 'open', places, returns: 0 },
      events: [line(fix, at, 'opened', 'open', finding.found)],
    };
  return reopened(fix, places, finding.found, at);
}

const ENDED = 'the acceptance ended, or new places or another value appeared';

/** A fault that is known already is seen again. */
function reopened(fix: FixCore, places: FixCore['places'], found: string | undefined, at: string): Step {
  const open: FixCore = { ...fix, state: 'open', places };
  switch (fix.state) {
    case 'verified':
    case 'gone':
      return {
        fix: { ...open, returns: fix.returns + 1 },
        events: [line(fix, at, 'came back', 'open', found)],
      };
    case 'to verify':
      return { fix: open, events: [line(fix, at, 'still seen', 'open', found)] };
    case 'accepted':
      return { fix: open, events: [line(fix, at, 'state', 'open', ENDED)] };
    default: {
      const before = fix.places.length;
      const change = `${quantity(before, 'place')} before, ${quantity(places.length, 'place')} now`;
      return {
        fix: { ...fix, places },
        events: places.length === before ? [] : [line(fix, at, 'places', fix.state, change)],
      };
    }
  }
}

/** A check that the checklist no longer asks, or that this situation does not ask. */
export function afterLeavingOut(fix: FixCore, at: string): Step | null {
  if (CLOSED_STATES.has(fix.state)) return null;
  return {
    fix: { ...fix, state: 'gone', places: [] },
    events: [
      {
        kind: 'gone',
        by: 'audit',
        at,
        from: fix.state,
        to: 'gone',
        text: 'this check is no longer asked here',
      },
    ],
  };
}

/** The states a person may set. Verified and gone are for audits only; accepted comes with an acceptance. */
const BY_HAND: Record<FixState, FixState[]> = {
  open: ['in progress', 'to verify'],
  'in progress': ['open', 'to verify'],
  'to verify': ['open', 'in progress'],
  accepted: [],
  verified: [],
  gone: [],
};

/** The same for what came of a client’s remark: no audit sees it, so people say that it is done. */
const REMARK_BY_HAND: Record<FixState, FixState[]> = {
  ...BY_HAND,
  'in progress': ['open', 'to verify', 'verified'],
  'to verify': ['open', 'in progress', 'verified'],
  verified: ['open'],
};

/** The states that a person may set. @param check what the fix is of */
export const manualStates = (state: FixState, check: string): readonly FixState[] =>
  (isRemarkCheck(check) ? REMARK_BY_HAND : BY_HAND)[state];

/**
 * A person's change of state.
 * @param check what the fix is of
 * @throws RangeError with a sentence for the screen when it is not theirs to make
 */
export function setState(
  fix: FixCore,
  to: FixState,
  { check, by, at }: { check: string; by: string; at: string },
): Step {
  if (to === fix.state) return { fix, events: [] };
  if (!manualStates(fix.state, check).includes(to)) {
    const why =
      to === 'verified' || to === 'gone'
        ? `only an audit can say “${to}”`
        : to === 'accepted'
          ? 'accept the fault with a reason and an end date'
          : `a fix that is ${fix.state} is changed by the next audit`;
    throw new RangeError(`This fix is ${fix.state} and cannot be set to ${to}: ${why}.`);
  }
  return { fix: { ...fix, state: to }, events: [{ kind: 'state', by, at, from: fix.state, to }] };
}
