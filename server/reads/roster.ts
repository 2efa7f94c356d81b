/** The roster: one row a site, sorted, filtered and cut by the database. */
import { QueryTypes, type Transaction } from 'sequelize';
import type { EnvironmentKind, Situation, Stage } from '#core/facts/situation';
import type { Result } from '#core/score/score';
import { database } from '#server/platform/db/connection';
import { keyText } from '#server/platform/db/sort-key';
import { askedWords } from '#server/platform/db/words';
import { COUNTED, MOST_CHOSEN, type SomeRows } from '#server/platform/windows';
import type { RosterDto } from '#server/sites';
import { shownOf, UNKNOWN_FROM } from './standing';

export interface RosterEnvironment {
  id: number;
  name: string;
  kind: EnvironmentKind;
  url: string;
  situation: Situation | null;
  audit: null | {
    id: number;
    at: string;
    score: number | null;
    scoreBefore: number | null;
    scoreAsFound?: number | null;
    coverage: number | null;
    provisional: boolean;
    gate: Result['gate'];
    gateNote: string;
    lost: number;
    worst: Result['worst'] | null;
    unreached: string | null;
    unscored: string | null;
    /** Why the part that a browser sees is missing. */
    missing: string | null;
    /** Whether it looked at an address that was changed since. */
    ofOldAddress: boolean;
    band: Result['band'];
    blockers: number;
  };
  openFixes: number;
  /** The audit that runs, or waits for its turn. */
  runningId: number | null;
}

interface SiteRow {
  id: number;
  name: string;
  client: string;
  stage: Stage;
  replaces: boolean;
  launchDate: string | null;
  /** When it was set to launched; nothing where it came so. */
  launchedAt: Date | null;
  hostProfileId: number | null;
  hostProfile: string | null;
  ownerId: number | null;
  pageLimit: number | null;
  owner: string | null;
  /** Raised by each change of what is kept of the site itself. */
  version: number;
}

/** A site with all its environments. */
export interface SiteWithEnvironments extends SiteRow {
  environments: RosterEnvironment[];
  shown: number;
}

/** A site in the roster, by the environment that stands for it. */
export interface RosterRow extends Pick<
  SiteRow,
  'id' | 'name' | 'client' | 'stage' | 'launchDate' | 'launchedAt'
> {
  openFixes: number;
  environment: Pick<RosterEnvironment, 'id' | 'name' | 'audit' | 'runningId'> | null;
}

interface EnvironmentRow {
  id: number;
  name: string;
  kind: EnvironmentKind;
  url: string;
  auditId: number | null;
  situation: Situation | null;
  finishedAt: Date | null;
  scoreBefore: number | null;
  result: string | null;
  ofOldAddress: number | null;
  runningId: number | null;
  openFixes: number;
}

const ENVIRONMENT_COLUMNS = `e.id, e.name, e.kind, e.url, e.open_fixes AS openFixes,
  a.id AS auditId, a.situation, a.finished_at AS finishedAt, a.score_before AS scoreBefore, a.result,
  a.url <> e.url AS ofOldAddress, r.id AS runningId`;

function auditOf(row: EnvironmentRow): RosterEnvironment['audit'] {
  if (!row.auditId || !row.result) return null;
  const result = JSON.parse(row.result) as Result & { missing?: string };
  return {
    id: row.auditId,
    at: row.finishedAt!.toISOString(),
    score: result.score,
    scoreBefore: row.scoreBefore,
    ...(result.scoreAsFound !== undefined ? { scoreAsFound: result.scoreAsFound } : {}),
    coverage: result.coverage,
    provisional: result.provisional,
    gate: result.gate,
    gateNote: result.gateNote,
    lost: result.lost,
    worst: result.worst ?? null,
    unreached: result.unreached ?? null,
    unscored: result.unscored ?? null,
    missing: result.missing ?? null,
    ofOldAddress: Boolean(row.ofOldAddress),
    band: result.band,
    blockers: result.counts.blockers,
  };
}

const environmentOf = (row: EnvironmentRow): RosterEnvironment => ({
  id: row.id,
  name: row.name,
  kind: row.kind,
  url: row.url,
  situation: row.situation,
  audit: auditOf(row),
  openFixes: row.openFixes,
  runningId: row.runningId,
});

/** @returns undefined where there is no such site */
export async function siteWithEnvironments(
  id: number,
  transaction?: Transaction,
): Promise<SiteWithEnvironments | undefined> {
  const [site] = await database().query<SiteRow>(
    `SELECT s.id, s.name, c.name AS client, s.stage, s.replaces, s.launch_date AS launchDate,
      s.launched_at AS launchedAt, s.version,
      s.host_profile_id AS hostProfileId, h.name AS hostProfile, s.owner_id AS ownerId, u.name AS owner,
      s.page_limit AS pageLimit
      FROM site s JOIN client c ON c.id = s.client_id LEFT JOIN host_profile h ON h.id = s.host_profile_id
      LEFT JOIN user u ON u.id = s.owner_id WHERE s.id = :id`,
    { type: QueryTypes.SELECT, replacements: { id }, transaction },
  );
  if (!site) return undefined;
  const rows = await database().query<EnvironmentRow>(
    `SELECT ${ENVIRONMENT_COLUMNS} FROM environment e LEFT JOIN audit a ON a.id = e.last_audit_id LEFT JOIN audit r ON r.running_key = e.id
      WHERE e.site_id = :id ORDER BY e.position`,
    { type: QueryTypes.SELECT, replacements: { id }, transaction },
  );
  const environments = rows.map(environmentOf);
  return {
    ...site,
    replaces: Boolean(site.replaces),
    environments,
    shown: shownOf(site.stage, environments)?.id ?? 0,
  };
}

const COLUMNS = {
  site: 'by_site',
  stage: 'by_stage',
  score: 'by_score',
  gate: 'by_gate',
  fixes: 'by_fixes',
  audit: 'by_audit',
} as const satisfies Record<NonNullable<RosterDto['by']>, string>;
const PER_WINDOW = 30;

/** One stretch of a sorted list. */
interface Stretch {
  condition: string;
  direction: 'ASC' | 'DESC';
}

/**
 * Which stretches a window reads, one after the other until it is full. Nothing known comes last either way, so a
 * list that is turned round has two.
 */
function stretchesOf(column: string, isDown: boolean, after: string | undefined): Stretch[] {
  const on: Stretch = { condition: after === undefined ? '1 = 1' : `${column} > :after`, direction: 'ASC' };
  if (!isDown || (after !== undefined && after >= UNKNOWN_FROM)) return [on];
  const known = after === undefined ? `${column} < :unknown` : `${column} < :after`;
  return [
    { condition: known, direction: 'DESC' },
    { condition: `${column} >= :unknown`, direction: 'ASC' },
  ];
}

/** Which sites a list or a count is about, but for where it goes on. */
function filterOf({ stage, words: typed }: RosterDto) {
  const words = askedWords(typed);
  return {
    hasWords: words !== undefined,
    conditions: [
      ...(stage ? ['stage = :stage'] : []),
      ...(words ? ['MATCH(words) AGAINST(:words IN BOOLEAN MODE)'] : []),
    ],
    replacements: { stage, words },
  };
}

interface LineRow extends EnvironmentRow, Pick<SiteRow, 'client' | 'stage' | 'launchDate' | 'launchedAt'> {
  sortKey: string;
  ofSite: number;
  site: string;
  siteFixes: number;
}

/** The sites of one window, with the keys that it is sorted by. */
async function linesOf(asked: RosterDto, limit: number): Promise<LineRow[]> {
  const column = COLUMNS[asked.by ?? 'gate'];
  const { conditions, replacements } = filterOf(asked);
  const out: LineRow[] = [];
  for (const { condition, direction } of stretchesOf(column, asked.down === '1', asked.after)) {
    if (out.length >= limit) break;
    out.push(
      ...(await database().query<LineRow>(
        `SELECT t.sort_key AS sortKey, t.site_id AS ofSite, s.name AS site, c.name AS client, s.stage,
          s.launch_date AS launchDate, s.launched_at AS launchedAt, t.open_fixes AS siteFixes, ${ENVIRONMENT_COLUMNS}
          FROM (SELECT site_id, environment_id, open_fixes, ${column} AS sort_key FROM standing
            WHERE ${[...conditions, condition].join(' AND ')} ORDER BY ${column} ${direction} LIMIT :limit) t
          JOIN site s ON s.id = t.site_id JOIN client c ON c.id = s.client_id
          LEFT JOIN environment e ON e.id = t.environment_id LEFT JOIN audit a ON a.id = e.last_audit_id
          LEFT JOIN audit r ON r.running_key = e.id
          ORDER BY t.sort_key ${direction}`,
        {
          type: QueryTypes.SELECT,
          replacements: {
            ...replacements,
            after: asked.after,
            unknown: UNKNOWN_FROM,
            limit: limit - out.length,
          },
        },
      )),
    );
  }
  return out;
}

const rowOf = (line: LineRow): RosterRow => ({
  id: line.ofSite,
  name: line.site,
  client: line.client,
  stage: line.stage,
  launchDate: line.launchDate,
  launchedAt: line.launchedAt,
  openFixes: line.siteFixes,
  environment: line.id
    ? { id: line.id, name: line.name, audit: auditOf(line), runningId: line.runningId }
    : null,
});

/** How many sites match, how many of them are held, and how many there are at all. */
async function countsOf(asked: RosterDto) {
  const [all] = await database().query<{ sites: number | null; held: number | null; whole: number | null }>(
    `SELECT SUM(IF(:stage = '' OR stage = :stage, sites, 0)) AS sites,
      SUM(IF((:stage = '' OR stage = :stage) AND gate = 'held', sites, 0)) AS held, SUM(sites) AS whole
      FROM standing_count`,
    { type: QueryTypes.SELECT, replacements: { stage: asked.stage ?? '' } },
  );
  const whole = Number(all!.whole ?? 0);
  const { hasWords, conditions, replacements } = filterOf(asked);
  if (!hasWords) return { total: Number(all!.sites ?? 0), held: Number(all!.held ?? 0), whole };
  const [some] = await database().query<{ total: number; held: number | null }>(
    `SELECT COUNT(*) AS total, SUM(gate = 'held') AS held
      FROM (SELECT gate FROM standing WHERE ${conditions.join(' AND ')} LIMIT ${COUNTED}) m`,
    { type: QueryTypes.SELECT, replacements },
  );
  return { total: Number(some!.total), held: Number(some!.held ?? 0), whole };
}

/** One window of the roster. @returns how many match are held too, and how many sites there are at all */
export async function rosterWindow(
  asked: RosterDto,
): Promise<SomeRows<RosterRow> & { held: number; whole: number }> {
  const limit = asked.limit ?? PER_WINDOW;
  const [lines, counts] = await Promise.all([linesOf(asked, limit + 1), countsOf(asked)]);
  const shown = lines.slice(0, limit);
  return {
    rows: shown.map(rowOf),
    next: lines.length > limit ? shown.at(-1)!.sortKey : null,
    ...counts,
  };
}

const FOUND = 20;

/** Sites for going to one or choosing some: those that are called so come before those found by other words. */
export async function findSites({
  words: typed = '',
}: {
  words?: string;
}): Promise<{ id: number; name: string; client: string; environmentId: number | null }[]> {
  const words = askedWords(typed);
  return database().query(
    `SELECT s.id, s.name, c.name AS client, t.environment_id AS environmentId
      FROM (SELECT site_id, environment_id, by_site LIKE :called AS is_called, by_site FROM standing
        ${words ? 'WHERE MATCH(words) AGAINST(:words IN BOOLEAN MODE)' : ''}
        ORDER BY ${words ? 'is_called DESC, ' : ''}by_site LIMIT ${FOUND}) t
      JOIN site s ON s.id = t.site_id JOIN client c ON c.id = s.client_id ORDER BY t.is_called DESC, t.by_site`,
    { type: QueryTypes.SELECT, replacements: { words, called: `%${keyText(typed.trim())}%` } },
  );
}

/** The environments that stand for all sites that match: what an audit of all of them looks at. */
export async function shownEnvironments(asked: RosterDto): Promise<number[]> {
  const { conditions, replacements } = filterOf(asked);
  const rows = await database().query<{ id: number }>(
    `SELECT environment_id AS id FROM standing
      WHERE ${['environment_id IS NOT NULL', ...conditions].join(' AND ')} LIMIT ${MOST_CHOSEN}`,
    { type: QueryTypes.SELECT, replacements },
  );
  return rows.map((r) => r.id);
}
