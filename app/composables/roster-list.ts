/** Which sites the roster lists, and in which order. */
import type { Stage } from '#core/facts/situation';
import type { Environment, RosterRow } from '~/types';
import { matching } from './matching';

export type SortKey = 'site' | 'stage' | 'score' | 'gate' | 'fixes' | 'audit';
export interface RosterView {
  words: string;
  stage: Stage | 'all';
  by: SortKey;
  down: boolean;
}

/** The environment that stands for a site. */
export const shownEnvironment = (r: RosterRow): Environment | undefined =>
  r.environments.find((p) => p.id === r.shown);
export const openFixesOf = (r: RosterRow): number => r.environments.reduce((n, p) => n + p.openFixes, 0);

/** A site that was never audited stands where it can be seen: after what is held. */
const GATES = { held: 0, undecided: 2, clear: 3 };
const NEVER = 1;
type Key = number | string | null;

/** What a column sorts by; null where nothing is known. */
const KEYS: Record<SortKey, (r: RosterRow, audit: Environment['audit'] | undefined) => Key> = {
  site: (r) => r.name.toLowerCase(),
  stage: (r) => r.launchDate ?? null,
  score: (_, audit) => audit?.score ?? null,
  gate: (_, audit) => (audit ? GATES[audit.gate] : NEVER),
  fixes: openFixesOf,
  audit: (_, audit) => audit?.at ?? null,
};

/** Nothing known comes last either way. */
function compare(a: Key, b: Key, sign: number): number {
  if (a === null || b === null) return Number(a === null) - Number(b === null);
  if (a === b) return 0;
  return a < b ? -sign : sign;
}

/** What is the same otherwise stands by points lost, and never by its name alone. */
const lostBy = (r: RosterRow): number => shownEnvironment(r)?.audit?.lost ?? 0;
const byName = (a: RosterRow, b: RosterRow): number => a.name.localeCompare(b.name);

const textOf = (r: RosterRow): string => {
  const environments = r.environments
    .map(
      (p) => `${p.url} ${p.audit?.gate ?? ''} ${p.audit?.worst?.title ?? ''} ${p.audit?.worst?.found ?? ''}`,
    )
    .join(' ');
  return `${r.name} ${r.client} ${r.stage} ${r.hostProfile ?? ''} ${environments}`;
};

export function listSites(rows: readonly RosterRow[], { words, stage, by, down }: RosterView): RosterRow[] {
  const matches = matching(words);
  const sign = down ? -1 : 1;
  return rows
    .filter((r) => (stage === 'all' || r.stage === stage) && matches(textOf(r)))
    .map((r) => ({ r, key: KEYS[by](r, shownEnvironment(r)?.audit) }))
    .sort((a, b) => compare(a.key, b.key, sign) || lostBy(b.r) - lostBy(a.r) || byName(a.r, b.r))
    .map(({ r }) => r);
}
