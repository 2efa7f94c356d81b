/** Which sites the roster lists, and in which order. */
import type { Stage } from '#core/facts/situation';
import type { Place, RosterRow } from '~/types';
import { matching } from './matching';

export type SortKey = 'site' | 'stage' | 'score' | 'gate' | 'blockers' | 'fixes' | 'audit';
export interface RosterView {
  words: string;
  stage: Stage | 'all';
  by: SortKey;
  down: boolean;
}

/** The environment that stands for a site. */
export const shownPlace = (r: RosterRow): Place | undefined => r.places.find((p) => p.id === r.shown);
export const openFixesOf = (r: RosterRow): number => r.places.reduce((n, p) => n + p.openFixes, 0);

const GATES = { held: 0, undecided: 1, clear: 2 };
type Key = number | string | null;

/** What a column sorts by; null where nothing is known. */
const KEYS: Record<SortKey, (r: RosterRow, audit: Place['audit'] | undefined) => Key> = {
  site: (r) => r.name.toLowerCase(),
  stage: (r) => r.launchDate ?? null,
  score: (_, audit) => audit?.score ?? null,
  gate: (_, audit) => (audit ? GATES[audit.gate] : null),
  blockers: (_, audit) => audit?.blockers ?? null,
  fixes: openFixesOf,
  audit: (_, audit) => audit?.at ?? null,
};

/** Nothing known comes last either way. */
function compare(a: Key, b: Key, sign: number): number {
  if (a === null || b === null) return Number(a === null) - Number(b === null);
  if (a === b) return 0;
  return a < b ? -sign : sign;
}

const textOf = (r: RosterRow): string => {
  const places = r.places.map((p) => `${p.url} ${p.audit?.gate ?? ''}`).join(' ');
  return `${r.name} ${r.client} ${r.stage} ${r.hostProfile ?? ''} ${places}`;
};

export function listSites(rows: readonly RosterRow[], { words, stage, by, down }: RosterView): RosterRow[] {
  const matches = matching(words);
  const sign = down ? -1 : 1;
  return rows
    .filter((r) => (stage === 'all' || r.stage === stage) && matches(textOf(r)))
    .map((r) => ({ r, key: KEYS[by](r, shownPlace(r)?.audit) }))
    .sort((a, b) => compare(a.key, b.key, sign) || a.r.name.localeCompare(b.r.name))
    .map(({ r }) => r);
}
