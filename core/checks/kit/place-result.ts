/** Making the results that a check gives for each place. */
import type { PlaceResult } from './finding';

export type PlaceDetails = Pick<PlaceResult, 'expected' | 'found' | 'raw' | 'adopt'>;
const NOTHING: PlaceDetails = {};

/** Thousands of these are made in an audit: one shape and no spreading, which is several times as quick. */
function result(
  place: string,
  outcome: PlaceResult['outcome'],
  more: PlaceDetails,
  reason?: string,
): PlaceResult {
  return {
    place,
    outcome,
    expected: more.expected,
    found: more.found,
    raw: more.raw,
    reason,
    adopt: more.adopt,
  };
}

export const passed = (place: string, more: PlaceDetails = NOTHING): PlaceResult =>
  result(place, 'passed', more);

export const failed = (place: string, more: PlaceDetails = NOTHING): PlaceResult =>
  result(place, 'failed', more);

export const unsure = (place: string, reason: string, more: PlaceDetails = NOTHING): PlaceResult =>
  result(place, 'cantTell', more, reason);
