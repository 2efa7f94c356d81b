/** Fixes over all sites: by fault, and one by one, sorted, filtered and cut by the database. */
import { QueryTypes } from 'sequelize';
import { checkById } from '#core/checks/catalogue/index';
import type { JudgedFinding } from '#core/checks/engine/judge';
import type { Severity } from '#core/facts/finding';
import { CLOSED_STATES, type FixState } from '#core/facts/fix';
import { FindingRow } from '../audits/models';
import { database } from '../platform/db/connection';
import { NotFound } from '../platform/errors';
import type { FixesDto } from './dto';

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

const FROM = `fix f
  JOIN environment e ON e.id = f.environment_id
  JOIN site s ON s.id = e.site_id
  JOIN client c ON c.id = s.client_id
  LEFT JOIN user u ON u.id = f.owner_id
  LEFT JOIN finding d ON d.environment_id = f.environment_id AND d.check_id = f.check_id`;
/** What the filter's words are looked for in. */
const WORDS =
  "CONCAT_WS(' ', f.check_id, d.title, d.found, s.name, c.name, e.name, f.state, f.severity, u.name)";

interface Filter {
  where: string;
  replacements: Record<string, unknown>;
}

/** @param me who asks, for what is theirs */
function filterOf({ words = '', check, site, owner, closed }: FixesDto, me: number): Filter {
  const parts = words.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 10);
  const conditions = [
    closed ? '' : 'f.state NOT IN (:closed)',
    check ? 'f.check_id = :check' : '',
    site ? 's.id = :site' : '',
    owner === undefined ? '' : owner === 'nobody' ? 'f.owner_id IS NULL' : 'f.owner_id = :owner',
    ...parts.map((_, i) => `${WORDS} LIKE :word${i}`),
  ];
  return {
    where: conditions.filter(Boolean).join(' AND ') || '1 = 1',
    replacements: {
      closed: [...CLOSED_STATES],
      check,
      site,
      owner: owner === 'me' ? me : owner,
      ...Object.fromEntries(
        parts.map((word, i) => [`word${i}`, `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%`]),
      ),
    },
  };
}

/** The gravest first, then what loses most; the same order on every page. */
const WORST = "FIELD(f.severity, 'blocker', 'major', 'minor'), COALESCE(d.lost, 0) DESC, s.name, f.id";
const ORDER: Record<NonNullable<FixesDto['sort']>, string> = {
  worst: WORST,
  site: `MIN(FIELD(f.severity, 'blocker', 'major', 'minor')) OVER (PARTITION BY s.id),
    SUM(COALESCE(d.lost, 0)) OVER (PARTITION BY s.id) DESC, s.name, s.id, ${WORST}`,
  person: `u.name IS NULL, u.name, u.id, ${WORST}`,
  due: `f.due_date IS NULL, f.due_date, ${WORST}`,
};

type RawFix = Omit<FixRow, 'scope' | 'failing' | 'points'> & {
  scope: string | null;
  failing: number | null;
  points: number | null;
};

/** Where no finding names it any more, the catalogue does. */
const titleOf = (check: string, title: string | null): string =>
  title || (checkById.get(check)?.title ?? check);

/** One window of the fixes, and how many there are in all. */
export async function listFixes(asked: FixesDto, me: number): Promise<{ total: number; rows: FixRow[] }> {
  const { where, replacements } = filterOf(asked, me);
  const [rows, [count]] = await Promise.all([
    database().query<RawFix>(
      `SELECT f.id, f.check_id AS \`check\`, d.title, f.severity, f.state, d.found, d.scope, d.failing,
        d.lost AS points, f.returns, u.name AS owner, f.owner_id AS ownerId, f.due_date AS dueDate,
        s.id AS siteId, s.name AS site, c.name AS client, e.id AS environmentId, e.name AS environment
        FROM ${FROM} WHERE ${where} ORDER BY ${ORDER[asked.sort ?? 'worst']} LIMIT :limit OFFSET :offset`,
      {
        type: QueryTypes.SELECT,
        replacements: { ...replacements, limit: asked.limit ?? 50, offset: asked.offset ?? 0 },
      },
    ),
    database().query<{ n: number }>(`SELECT COUNT(*) AS n FROM ${FROM} WHERE ${where}`, {
      type: QueryTypes.SELECT,
      replacements,
    }),
  ]);
  return {
    total: Number(count!.n),
    rows: rows.map((r) => ({
      ...r,
      title: titleOf(r.check, r.title),
      scope: r.scope ?? '',
      failing: r.failing ?? 0,
      points: r.points ?? 0,
    })),
  };
}

/** Faults over all sites, those that hold a gate first, then by the points they cost. */
export async function listFaults(asked: FixesDto, me: number): Promise<Fault[]> {
  const { where, replacements } = filterOf(asked, me);
  const rows = await database().query<Fault>(
    `SELECT f.check_id AS \`check\`, MAX(d.title) AS title,
      ELT(MIN(FIELD(f.severity, 'blocker', 'major', 'minor')), 'blocker', 'major', 'minor') AS severity,
      MAX(d.scope) AS scope, COUNT(*) AS fixes, COUNT(DISTINCT s.id) AS sites,
      COALESCE(SUM(d.failing), 0) AS failing, COALESCE(SUM(d.lost), 0) AS points,
      COALESCE(SUM(f.severity = 'blocker' AND d.outcome = 'failed' AND d.accepted = 0), 0) AS gates
      FROM ${FROM} WHERE ${where} GROUP BY f.check_id`,
    { type: QueryTypes.SELECT, replacements },
  );
  const faults = rows.map((r) => ({
    ...r,
    title: titleOf(r.check, r.title),
    scope: r.scope ?? '',
    fixes: Number(r.fixes),
    sites: Number(r.sites),
    failing: Number(r.failing),
    points: Number(r.points),
    gates: Number(r.gates),
  }));
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
  const rows = await FindingRow.findAll({
    where: { checkId: check, environmentId: [...environmentIds], outcome: 'failed' },
  });
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
