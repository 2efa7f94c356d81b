/** Fixes over all sites: by fault, and one by one, sorted, filtered and cut by the database. */
import { QueryTypes } from 'sequelize';
import { checkById } from '#core/checks/catalogue/index';
import type { JudgedFinding } from '#core/checks/engine/judge';
import type { Severity } from '#core/facts/finding';
import type { FixState } from '#core/facts/fix';
import { failedFindings } from '#server/audits';
import type { FixesDto } from '#server/fixes';
import { database } from '#server/platform/db/connection';
import { wholePoints } from '#server/platform/db/sort-key';
import { askedWords } from '#server/platform/db/words';
import { NotFound } from '#server/platform/errors';
import { COUNTED, MOST_CHOSEN, type SomeRows } from '#server/platform/windows';
import { CLIENTS, EVERYBODYS, NOBODYS, faultOf, type Whose } from './standing';

export interface FixRow {
  id: number;
  check: string;
  title: string;
  severity: Severity;
  state: FixState;
  /** What the newest audit found, or why it could not look. */
  found: string | null;
  /** What a check of this kind looks at, and how many of them fail. */
  scope: string;
  failing: number;
  points: number;
  returns: number;
  owner: string | null;
  ownerId: number | null;
  /** A contact of the client whose it is. */
  contactId: number | null;
  dueDate: string | null;
  siteId: number;
  site: string;
  client: string;
  environmentId: number;
  environment: string;
}

/** One fault over all sites that have it. */
export interface Fault {
  check: string;
  title: string;
  severity: Severity;
  scope: string;
  fixes: number;
  sites: number;
  failing: number;
  points: number;
  /** Environments whose gate it holds. */
  gates: number;
}

/** Whose fixes are asked for, as counts are kept. */
function whoseOf(owner: FixesDto['owner'], me: number): Whose {
  if (owner === undefined) return EVERYBODYS;
  if (owner === 'nobody') return NOBODYS;
  if (owner === 'client') return CLIENTS;
  return owner === 'me' ? String(me) : owner;
}

/** What is asked of a fix so that it is theirs. */
function whoseCondition(whose: Whose): string[] {
  if (whose === EVERYBODYS) return [];
  if (whose === CLIENTS) return ['f.contact_id IS NOT NULL'];
  return [whose === NOBODYS ? 'f.owner_id IS NULL AND f.contact_id IS NULL' : 'f.owner_id = :whose'];
}

interface Filter {
  where: string;
  replacements: Record<string, unknown>;
}

/** @param me who asks, for what is theirs */
function filterOf({ words: typed, check, site, owner, closed, after }: FixesDto, me: number): Filter {
  const whose = whoseOf(owner, me);
  const words = askedWords(typed);
  const conditions = [
    'f.closed = :closed',
    ...(check ? ['f.check_id = :check'] : []),
    ...(site ? ['f.site_id = :site'] : []),
    ...whoseCondition(whose),
    ...(words ? ['MATCH(f.words) AGAINST(:words IN BOOLEAN MODE)'] : []),
  ];
  return {
    where: conditions.join(' AND '),
    replacements: { closed: Number(closed === '1'), check, site, whose, words, after },
  };
}

const SORTS = {
  worst: 'by_worst',
  site: 'by_site',
  person: 'by_person',
  due: 'by_due',
} as const satisfies Record<NonNullable<FixesDto['sort']>, string>;

/** One fault stands in one order, and so do the fixes of one person by person. */
function sortOf({ sort = 'worst', check, owner }: FixesDto): string {
  if (check || (owner && sort === 'person')) return SORTS.worst;
  return SORTS[sort];
}

/** Whether the counts that are kept answer this. */
const isKept = ({ words, site, closed }: FixesDto): boolean => !askedWords(words) && !site && closed !== '1';

/** How many fixes match: as it is kept where it is, else counted up to a point. */
async function countOf(asked: FixesDto, { where, replacements }: Filter, me: number): Promise<number> {
  const { check, owner } = asked;
  const sql = isKept(asked)
    ? `SELECT SUM(blockers + majors + minors) AS n FROM fault WHERE whose = :kept ${check ? 'AND check_id = :check' : ''}`
    : `SELECT COUNT(*) AS n FROM (SELECT 1 FROM fix f WHERE ${where} LIMIT ${COUNTED}) m`;
  const [count] = await database().query<{ n: number | null }>(sql, {
    type: QueryTypes.SELECT,
    replacements: { ...replacements, kept: whoseOf(owner, me) },
  });
  return Number(count!.n ?? 0);
}

type RawFix = Omit<FixRow, 'scope' | 'failing' | 'points'> & {
  key: string;
  scope: string | null;
  failing: number | null;
  points: number | null;
};
const PER_WINDOW = 50;

/** One window of the fixes, and how many there are in all. */
export async function listFixes(asked: FixesDto, me: number): Promise<SomeRows<FixRow>> {
  const filter = filterOf(asked, me);
  const key = sortOf(asked);
  const limit = asked.limit ?? PER_WINDOW;
  const [found, total] = await Promise.all([
    database().query<RawFix>(
      `SELECT w.sort_key AS \`key\`, f.id, f.check_id AS \`check\`, COALESCE(f.title, d.fault) AS title,
        f.severity, f.state, d.found, d.scope, d.failing, d.lost AS points, f.returns, COALESCE(u.name, k.name) AS owner, f.owner_id AS ownerId,
        f.contact_id AS contactId, f.due_date AS dueDate,
        s.id AS siteId, s.name AS site, c.name AS client, e.id AS environmentId, e.name AS environment
        FROM (SELECT f.id, f.${key} AS sort_key FROM fix f
          WHERE ${filter.where} ${asked.after === undefined ? '' : `AND f.${key} > :after`}
          ORDER BY f.${key} LIMIT :limit) w
        JOIN fix f ON f.id = w.id
        JOIN environment e ON e.id = f.environment_id
        JOIN site s ON s.id = e.site_id
        JOIN client c ON c.id = s.client_id
        LEFT JOIN user u ON u.id = f.owner_id
        LEFT JOIN contact k ON k.id = f.contact_id
        LEFT JOIN finding d ON d.environment_id = f.environment_id AND d.check_id = f.check_id
        ORDER BY w.sort_key`,
      { type: QueryTypes.SELECT, replacements: { ...filter.replacements, limit: limit + 1 } },
    ),
    countOf(asked, filter, me),
  ]);
  const rows = found.slice(0, limit);
  return {
    total,
    next: found.length > limit ? rows.at(-1)!.key : null,
    rows: rows.map(({ key: _, ...r }) => ({
      ...r,
      title: faultOf(r.check, r.title),
      scope: r.scope ?? '',
      failing: r.failing ?? 0,
      points: r.points ?? 0,
    })),
  };
}

/** All fixes that match, by their numbers: what somebody who chooses all of them means. */
export async function fixIds(asked: FixesDto, me: number): Promise<number[]> {
  const { where, replacements } = filterOf(asked, me);
  const rows = await database().query<{ id: number }>(
    `SELECT f.id FROM fix f WHERE ${where} LIMIT ${MOST_CHOSEN}`,
    { type: QueryTypes.SELECT, replacements },
  );
  return rows.map((r) => r.id);
}

/** Sums as the database hands them over. */
type RawFault = Record<'sites' | 'blockers' | 'majors' | 'minors' | 'failing' | 'lost' | 'gates', number> & {
  check: string;
  title: string | null;
  scope: string | null;
};

/** What a filter leaves of each fault, added up from the fixes that match it. */
const sumsOf = ({ where, replacements }: Filter): Promise<RawFault[]> =>
  database().query<RawFault>(
    `SELECT f.check_id AS \`check\`, MAX(COALESCE(f.title, d.fault)) AS title, MAX(d.scope) AS scope,
      COUNT(DISTINCT f.site_id) AS sites, SUM(f.severity = 'blocker') AS blockers,
      SUM(f.severity = 'major') AS majors, SUM(f.severity = 'minor') AS minors,
      COALESCE(SUM(d.failing), 0) AS failing, COALESCE(SUM(ROUND(d.lost * ${wholePoints(1)})), 0) AS lost,
      COALESCE(SUM(f.severity = 'blocker' AND d.outcome = 'failed' AND d.accepted = 0), 0) AS gates
      FROM fix f LEFT JOIN finding d ON d.environment_id = f.environment_id AND d.check_id = f.check_id
      WHERE ${where} GROUP BY f.check_id`,
    { type: QueryTypes.SELECT, replacements },
  );

/** Faults as they are counted all along. */
const keptFaults = (whose: string, check: string | undefined): Promise<RawFault[]> =>
  database().query<RawFault>(
    `SELECT check_id AS \`check\`, title, scope, sites, blockers, majors, minors, failing, lost, gates FROM fault
      WHERE whose = :whose ${check ? 'AND check_id = :check' : ''} AND sites > 0`,
    { type: QueryTypes.SELECT, replacements: { whose, check } },
  );

/** Faults over all sites, those that hold a gate first, then by the points they cost. */
export async function listFaults(asked: FixesDto, me: number): Promise<Fault[]> {
  const rows = isKept(asked)
    ? await keptFaults(whoseOf(asked.owner, me), asked.check)
    : await sumsOf(filterOf({ ...asked, after: undefined }, me));
  const faults = rows.map((r): Fault => {
    const [blockers, majors, minors] = [Number(r.blockers), Number(r.majors), Number(r.minors)];
    return {
      check: r.check,
      title: faultOf(r.check, r.title),
      severity: blockers ? 'blocker' : majors ? 'major' : 'minor',
      scope: r.scope ?? '',
      fixes: blockers + majors + minors,
      sites: Number(r.sites),
      failing: Number(r.failing),
      points: Number(r.lost) / wholePoints(1),
      gates: Number(r.gates),
    };
  });
  return faults.sort(
    (a, b) =>
      Number(b.gates > 0) - Number(a.gates > 0) || b.points - a.points || a.check.localeCompare(b.check),
  );
}

/** How a fault is fixed, and for each environment what is its own. */
export interface FaultRecipe {
  why: string;
  /** Said once where it is the same everywhere; else null, and each environment has its own. */
  steps: string | null;
  /** By environment. */
  own: Record<number, { steps?: string; paste: { label: string; text: string }[] }>;
}

/** @throws NotFound where no audit finds it any more */
export async function faultRecipe(check: string, environmentIds: readonly number[]): Promise<FaultRecipe> {
  const rows = await failedFindings(check, environmentIds);
  const recipes = rows.flatMap((r) => {
    const { recipe } = r.data as JudgedFinding;
    return recipe ? [{ environmentId: r.environmentId, recipe }] : [];
  });
  if (!recipes.length) throw new NotFound('No audit finds this fault any more.');
  const isSame = recipes.every(({ recipe }) => recipe.steps === recipes[0]!.recipe.steps);
  return {
    why: checkById.get(check)?.why ?? '',
    steps: isSame ? recipes[0]!.recipe.steps : null,
    own: Object.fromEntries(
      recipes.map(({ environmentId, recipe: { steps, paste = [] } }) => [
        environmentId,
        { ...(isSame ? {} : { steps }), paste },
      ]),
    ),
  };
}
