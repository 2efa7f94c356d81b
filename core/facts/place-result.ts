/** Making the results that a check gives for each place. */
import type { PlaceResult } from './finding';
import type { Said } from './said';
import { say } from '#core/text/sentences';
import { AS_EXPECTED, NOT_SO } from '#core/text/says';

export interface PlaceDetails extends Pick<PlaceResult, 'expected' | 'raw' | 'adopt'> {
  found?: Said;
}
const NOTHING: PlaceDetails = {};

/** Thousands of these are made in an audit: one shape and no spreading, which is several times as quick. */
function result(
  place: string,
  outcome: PlaceResult['outcome'],
  more: PlaceDetails,
  said: Said,
  reason?: Said,
): PlaceResult {
  return {
    place,
    outcome,
    expected: more.expected,
    found: more.found && say(more.found),
    raw: more.raw,
    reason: reason && say(reason),
    code: said.code,
    data: said.data,
    adopt: more.adopt,
  };
}

export const passed = (place: string, more: PlaceDetails = NOTHING): PlaceResult =>
  result(place, 'passed', more, more.found ?? AS_EXPECTED);

export const failed = (place: string, more: PlaceDetails = NOTHING): PlaceResult =>
  result(place, 'failed', more, more.found ?? NOT_SO);

export const unsure = (place: string, reason: Said, more: PlaceDetails = NOTHING): PlaceResult =>
  result(place, 'cantTell', more, reason, reason);
