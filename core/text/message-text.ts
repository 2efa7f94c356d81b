/** Findings in words: their sentences made anew from codes and data, in a language. */
import type { Finding, PlaceResult } from '#core/facts/finding';
import { AS_EXPECTED, NOT_SO } from './common-messages';
import { IN_ENGLISH, formatMessage, type Wording } from './messages';

const SILENT: ReadonlySet<string> = new Set([AS_EXPECTED.code, NOT_SO.code]);

type Said = Pick<PlaceResult, 'code' | 'data' | 'found' | 'reason'> & { outcome: Finding['outcome'] };

/** What is said of one result; what was kept before there were codes stays as it is. */
function textOf({ code, data, outcome }: Said, wording: Wording): Pick<Said, 'found' | 'reason'> {
  if (!code) return {};
  const text = formatMessage({ code, data }, wording);
  return outcome === 'passed' || outcome === 'failed' ? { found: text } : { reason: text };
}

/** A place in words. */
const placeWithText = <P extends PlaceResult>(place: P, wording: Wording = IN_ENGLISH): P =>
  SILENT.has(place.code) ? place : { ...place, ...textOf(place, wording) };

/** A finding in words, its places too. */
export const withText = <F extends Finding>(finding: F, wording: Wording = IN_ENGLISH): F => ({
  ...finding,
  ...textOf(finding, wording),
  places: finding.places.map((place) => placeWithText(place, wording)),
});
