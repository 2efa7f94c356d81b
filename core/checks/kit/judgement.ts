/** From places to an outcome, and the ways in which a check can have nothing to say. */
import { readField, type BriefField, type Brief } from '#core/facts/brief';
import type { HostEvidence } from '#core/facts/evidence';
import type { Judgement, PlaceResult } from '#core/facts/finding';
import type { CheckContext } from './check';
import type { ReadPage } from '#core/checks/view/read-page';

type More = Pick<PlaceResult, 'expected' | 'found' | 'raw' | 'take'>;
const NOTHING: More = {};

/** Thousands of these are made in an audit: one shape and no spreading, which is several times as quick. */
function result(place: string, outcome: PlaceResult['outcome'], more: More, reason?: string): PlaceResult {
  return {
    place,
    outcome,
    expected: more.expected,
    found: more.found,
    raw: more.raw,
    reason,
    take: more.take,
  };
}
export const passed = (place: string, more: More = NOTHING): PlaceResult => result(place, 'passed', more);
export const failed = (place: string, more: More = NOTHING): PlaceResult => result(place, 'failed', more);
export const unsure = (place: string, reason: string, more: More = NOTHING): PlaceResult =>
  result(place, 'cantTell', more, reason);

export const inapplicable = (reason: string): Judgement => ({ outcome: 'inapplicable', reason, places: [] });
export const cantTell = (reason: string, more: Partial<Judgement> = {}): Judgement => ({
  outcome: 'cantTell',
  reason,
  places: [],
  ...more,
});
export const untested = (reason: string): Judgement => ({ outcome: 'untested', reason, places: [] });

/** Words for how many: "3 of 12 pages". */
export function countOf(n: number, all: number, one: string, many = `${one}s`): string {
  return `${n} of ${all} ${all === 1 ? one : many}`;
}

/**
 * Rule 1 of the catalogue: any failed place fails, else any undecided place leaves it open, else it passed.
 * @param words.expected what a good place looks like
 * @param words.none why there is nothing to look at, where that is proven
 */
export function overPlaces(
  places: PlaceResult[],
  words: { expected: string; unit: [string, string]; none?: string; notes?: string[] },
): Judgement {
  const [one, many] = words.unit;
  if (!places.length)
    return words.none
      ? inapplicable(words.none)
      : cantTell(`no ${many} to look at`, { expected: words.expected });
  let bad = 0,
    open = 0;
  let firstBad: PlaceResult | undefined, firstOpen: PlaceResult | undefined;
  for (const p of places) {
    if (p.outcome === 'failed') {
      bad++;
      firstBad ??= p;
    } else if (p.outcome === 'cantTell') {
      open++;
      firstOpen ??= p;
    }
  }
  const { expected } = words,
    notes = words.notes?.length ? words.notes : undefined;
  if (firstBad) {
    const found =
      places.length === 1
        ? firstBad.found
        : `${countOf(bad, places.length, one, many)}: ${firstBad.found ?? 'not so'}${bad > 1 ? ' …' : ''}`;
    return { outcome: 'failed', expected, found, reason: undefined, notes, places };
  }
  if (firstOpen)
    return {
      outcome: 'cantTell',
      expected,
      found: firstOpen.found,
      reason:
        places.length === 1
          ? firstOpen.reason
          : `${countOf(open, places.length, one, many)}: ${firstOpen.reason}`,
      notes,
      places,
    };
  return {
    outcome: 'passed',
    expected,
    found:
      places.length === 1
        ? (places[0]!.found ?? 'as expected')
        : countOf(places.length, places.length, one, many),
    reason: undefined,
    notes,
    places,
  };
}

const PLACES: [string, string] = ['place', 'places'];
const PAGES: [string, string] = ['page', 'pages'];

/** One place for the site as a whole. */
export function overSite(place: PlaceResult, words: { expected: string; notes?: string[] }): Judgement {
  place.expected ??= words.expected;
  return overPlaces([place], { expected: words.expected, notes: words.notes, unit: PLACES });
}

/**
 * Judges every page that can be read. Refusals and empty application shells are undecided (rules 4 and 5);
 * pages that answer 404 or 5xx are other checks' business.
 * @param judge null leaves a page out
 */
export function overPages(
  context: CheckContext,
  expected: string,
  judge: (page: ReadPage) => PlaceResult | PlaceResult[] | null,
  more: { only?: (page: ReadPage) => boolean; none?: string; readsText?: boolean; notes?: string[] } = {},
): Judgement {
  const places: PlaceResult[] = [];
  for (const page of context.view.pages) {
    if (more.only && !more.only(page)) continue;
    if (page.shell) {
      places.push(unsure(page.url, 'an empty shell that scripts fill: nothing to read without rendering'));
      continue;
    }
    const result = judge(page);
    if (Array.isArray(result)) places.push(...result);
    else if (result) places.push(result);
  }
  for (const refused of context.view.refusals)
    places.push(unsure(refused.url, `the server refused the visitor (${refused.status})`));
  return overPlaces(places, {
    expected,
    unit: PAGES,
    none: context.view.pages.length ? more.none : undefined,
    notes: more.notes,
  });
}

/**
 * Judges how each host of the site leads on. A host that shows a parking or unknown-name page is charged with
 * that alone (rule 3).
 * @param judge null leaves a host out
 */
export function overHosts(
  context: CheckContext,
  words: { expected: string; none?: string },
  judge: (host: HostEvidence) => PlaceResult | null,
): Judgement {
  const places = context.view.hosts
    .map((h) =>
      context.view.isAstray(h)
        ? unsure(h.host, 'rests on domain.connected: a parking or unknown-name page')
        : judge(h),
    )
    .filter((p): p is PlaceResult => p !== null);
  return overPlaces(places, { ...words, unit: ['host', 'hosts'] });
}

/**
 * Rule 2: a field not filled in makes its checks untested, one not wanted makes them inapplicable.
 * @returns the value, or the judgement that follows from its absence
 */
export function wanted<K extends BriefField>(
  brief: Brief,
  field: K,
): { value: NonNullable<Brief[K]> } | { judgement: Judgement } {
  const read = readField(brief, field);
  if (read.state === 'filled') return { value: read.value };
  if (read.state === 'notWanted') return { judgement: inapplicable(`not wanted: ${read.reason}`) };
  return { judgement: untested('the brief does not say') };
}
