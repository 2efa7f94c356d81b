/** Making the results that a check gives for each place. */
import type { PlaceResult } from './finding';
import type { Message } from './message';
import { formatMessage } from '#core/text/messages';
import { AS_EXPECTED, NOT_SO } from '#core/text/common-messages';

export interface PlaceDetails extends Pick<PlaceResult, 'expected' | 'raw' | 'adopt'> {
  found?: Message;
}
const NOTHING: PlaceDetails = {};

/** Thousands of these are made in an audit: one shape and no spreading, which is several times as quick. */
function result(
  place: string,
  outcome: PlaceResult['outcome'],
  more: PlaceDetails,
  said: Message,
  reason?: Message,
): PlaceResult {
  return {
    place,
    outcome,
    expected: more.expected,
    found: more.found && formatMessage(more.found),
    raw: more.raw,
    reason: reason && formatMessage(reason),
    code: said.code,
    data: said.data,
    adopt: more.adopt,
  };
}

export const passed = (place: string, more: PlaceDetails = NOTHING): PlaceResult =>
  result(place, 'passed', more, more.found ?? AS_EXPECTED);

export const failed = (place: string, more: PlaceDetails = NOTHING): PlaceResult =>
  result(place, 'failed', more, more.found ?? NOT_SO);

export const unsure = (place: string, reason: Message, more: PlaceDetails = NOTHING): PlaceResult =>
  result(place, 'cantTell', more, reason, reason);
