/** From places to an outcome, and the ways in which a check can have nothing to say. */
import type { BriefField } from '#core/facts/brief';
import type { HostEvidence } from '#core/facts/evidence';
import type { Finding, Judgement, PlaceResult } from '#core/facts/finding';
import type { Message } from '#core/facts/message';
import { quantity } from '#core/text/quantity';
import type { SiteView } from '#core/checks/view/site-view';
import type { ReadPage } from '#core/checks/view/read-page';
import { formatMessage, defineMessages } from '#core/text/messages';
import type { CheckContext } from './check';
import { unsure } from '#core/facts/place-result';
import { rootOf, commonMessage, unitsOf } from '#core/text/common-messages';

const msg = defineMessages('kit.judgement', {
  'no-pages': 'no pages to look at',
  'audit-again': 'audit again: it is in the brief only since this audit',
});

export { failed, passed, unsure } from '#core/facts/place-result';

/** What is said of a result as its code and data. */
export const codeOf = ({ code, data }: Message): Pick<Judgement, 'code' | 'data'> => ({
  code,
  ...(data ? { data } : {}),
});

export const inapplicable = (reason: Message): Judgement => ({
  outcome: 'inapplicable',
  reason: formatMessage(reason),
  ...codeOf(reason),
  places: [],
});
/** @param found what was met though it decides nothing */
export const cantTell = (
  reason: Message,
  {
    found,
    ...more
  }: Partial<Pick<Judgement, 'expected' | 'notes' | 'places' | 'awaits'>> & { found?: Message } = {},
): Judgement => ({
  outcome: 'cantTell',
  reason: formatMessage(reason),
  ...codeOf(reason),
  places: [],
  ...more,
  ...(found ? { found: formatMessage(found) } : {}),
});
/** @param awaits the blank field of the brief that would decide it */
export const untested = (reason: Message, awaits?: BriefField): Judgement => ({
  outcome: 'untested',
  reason: formatMessage(reason),
  ...codeOf(reason),
  places: [],
  ...(awaits ? { awaits } : {}),
});

/** What a kit function may be told beside what the check says of itself. */
interface More {
  /** Where it follows from what was met, and so cannot stand in the check's messages. */
  expected?: string;
  notes?: string[];
}

/** What a check's function has of its context, whatever its parameters and needs. */
type Asked = Pick<CheckContext, 'view' | 'hosts' | 'words'>;

/** The places of each undecided or failed kind, counted. */
function tally(places: readonly PlaceResult[]) {
  let failures = 0;
  let doubts = 0;
  let firstFailure: PlaceResult | undefined;
  let firstDoubt: PlaceResult | undefined;
  for (const p of places) {
    if (p.outcome === 'failed') {
      failures++;
      firstFailure ??= p;
    } else if (p.outcome === 'cantTell') {
      doubts++;
      firstDoubt ??= p;
    }
  }
  return { failures, doubts, firstFailure, firstDoubt };
}

const isResting = (p: PlaceResult): boolean => p.outcome === 'cantTell' && rootOf(p) !== undefined;

/** Hosts and records are few, and each is asked about: of these none is left out. */
const EACH_SHOWN: ReadonlySet<string> = new Set(['host', 'record']);

/** Rule 3: pages that rest on the fault of another check leave this one's, unless all of them do. */
function withoutResting(places: PlaceResult[], scope: string | undefined): PlaceResult[] {
  if (scope !== undefined && EACH_SHOWN.has(scope)) return places;
  const own = places.filter((p) => !isResting(p));
  return own.length && own.length < places.length ? own : places;
}

/**
 * Rule 1 of the catalogue: any failed place fails, else any undecided place leaves it open, else it passed.
 * Where there is no place, the check is inapplicable if its messages say why there is none, else undecided.
 */
export function overPlaces({ words }: Pick<Asked, 'words'>, met: PlaceResult[], more: More = {}): Judgement {
  const places = withoutResting(met, words.scope);
  const expected = more.expected ?? words.expected;
  const { unit } = words;
  const all = places.length;
  if (!all)
    return words.none
      ? inapplicable(words.none)
      : cantTell(commonMessage('nothing-to-look-at', { unit: unitsOf(0, unit) }), { expected });
  const notes = more.notes?.length ? more.notes : undefined;
  const { failures, doubts, firstFailure, firstDoubt } = tally(places);
  if (firstFailure) {
    if (all === 1)
      return {
        outcome: 'failed',
        expected,
        found: firstFailure.found,
        notes,
        ...codeOf(firstFailure),
        places,
      };
    const more = failures > 1 ? 'yes' : 'no';
    const first = codeOf(firstFailure);
    const said = commonMessage('some-fail', { bad: failures, all, unit: unitsOf(all, unit), first, more });
    return { outcome: 'failed', expected, found: formatMessage(said), notes, ...codeOf(said), places };
  }
  if (firstDoubt) {
    const { found } = firstDoubt;
    if (all === 1) {
      const { reason } = firstDoubt;
      return { outcome: 'cantTell', expected, found, reason, notes, ...codeOf(firstDoubt), places };
    }
    const first = codeOf(firstDoubt);
    const said = commonMessage('some-undecided', { doubts, all, unit: unitsOf(all, unit), first });
    return {
      outcome: 'cantTell',
      expected,
      found,
      reason: formatMessage(said),
      notes,
      ...codeOf(said),
      places,
    };
  }
  const said = all === 1 ? codeOf(places[0]!) : commonMessage('all-pass', { all, unit: unitsOf(all, unit) });
  return { outcome: 'passed', expected, found: formatMessage(said), notes, ...codeOf(said), places };
}

/** One place for the site as a whole. */
export function overSite(context: Pick<Asked, 'words'>, place: PlaceResult, more: More = {}): Judgement {
  place.expected ??= more.expected ?? context.words.expected;
  return overPlaces(context, [place], more);
}

interface OfPages extends More {
  only?: (page: ReadPage) => boolean;
  /** Addresses are judged, and not what stands on them: a shell has one too. */
  byAddress?: true;
  /** What the head of a shell says as served counts where it fails; scripts may still add the rest. */
  byHead?: true;
}

type JudgePage = (page: ReadPage) => PlaceResult | PlaceResult[] | null;

/** A shell is undecided, unless it fails by what it has as it is served. */
function placesOnShell(page: ReadPage, judge: JudgePage, { byHead }: OfPages): PlaceResult[] {
  const result = byHead ? [judge(page) ?? []].flat() : [];
  return result.some((place) => place.outcome === 'failed') ? result : [unsure(page.url, EMPTY_SHELL)];
}

/**
 * Judges every page that can be read. Refusals and empty application shells are undecided (rules 4 and 5);
 * pages that answer 404 or 5xx are other checks' business.
 * @param judge null leaves a page out
 */
export function overPages(context: Asked, judge: JudgePage, more: OfPages = {}): Judgement {
  const { view } = context;
  const places: PlaceResult[] = [];
  for (const page of view.pages) {
    if (more.only && !more.only(page)) continue;
    if (page.shell && !more.byAddress) {
      places.push(...placesOnShell(page, judge, more));
      continue;
    }
    const result = judge(page);
    if (Array.isArray(result)) places.push(...result);
    else if (result) places.push(result);
  }
  for (const refused of view.refusals)
    places.push(unsure(refused.url, commonMessage('refused', { status: refused.status })));
  // that no page has such a thing is proven by pages alone
  if (!places.length && !view.pages.length)
    return cantTell(msg('no-pages'), { expected: more.expected ?? context.words.expected });
  const built = view.pages.filter((p) => p.isRendered).length;
  const notes = built
    ? [...(more.notes ?? []), `${quantity(built, 'page')} that scripts build: judged as a browser showed it.`]
    : more.notes;
  return overPlaces(context, places, { ...more, notes });
}

/** Nobody has vouched for a manual check. */
export const NOT_YET_ATTESTED = commonMessage('not-yet-attested');

/** Why an empty application shell says nothing (rule 5). */
export const EMPTY_SHELL = commonMessage('empty-shell');

/**
 * Judges each host of the site. A host that lacks what the check needs rests on the check that says so (rule
 * 3).
 * @param judge null leaves a host out
 */
export function overHosts(
  context: Asked,
  judge: (host: HostEvidence) => PlaceResult | null,
  more: More = {},
): Judgement {
  const places: PlaceResult[] = [];
  for (const { evidence, blockedBy } of context.hosts) {
    const result = blockedBy === undefined ? judge(evidence) : unsure(evidence.host, blockedBy);
    if (result) places.push(result);
  }
  return overPlaces(context, [...places, ...unaskedHosts(context.view)], more);
}

/** Places for hosts that came into the brief after the audit. */
export const unaskedHosts = (view: SiteView): PlaceResult[] =>
  view.unasked.map((host) => unsure(host, msg('audit-again')));

/** The places that failed, which is what a recipe is about. @param most where a text for each would be too long */
export const failedPlaces = (finding: Pick<Finding, 'places'>, most = Infinity): PlaceResult[] =>
  finding.places.filter((p) => p.outcome === 'failed').slice(0, most);
