/**
 * The ledger of one environment: its latest findings a line each, the sum behind the score, one finding in full, and
 * the fixes and attestations beside them.
 */
import { QueryTypes } from 'sequelize';
import { checksOf } from '#core/checks/engine/checklist';
import type { JudgedFinding } from '#core/checks/engine/judge';
import type { Check } from '#core/checks/kit/check';
import type { FixState } from '#core/facts/fix';
import { headingOf } from '#core/facts/heading';
import type { Part } from '#core/facts/parts';
import type { Situation } from '#core/facts/situation';
import {
  holding,
  isManualOpen,
  isResting,
  ledgerFolds,
  ledgerGroups,
  ledgerShows,
  type LedgerGroup,
  type LedgerLine,
} from '#core/score/ledger';
import { pointsLost, termsOf, type Result } from '#core/score/score';
import {
  findFinding,
  findingsOf,
  findingsOfChecks,
  newestAttestations,
  findAudit,
  type FoldedDto,
  type LedgerDto,
  type Audit,
  type FindingRow,
} from '#server/audits';
import { checklistVersion } from '#server/checklists';
import { acceptancesOf, type AcceptanceRow } from '#server/fixes';
import { everybody } from '#server/people';
import { database } from '#server/platform/db/connection';
import { NotFound } from '#server/platform/errors';
import { FileRow } from '#server/platform/files/files';
import { findEnvironment } from '#server/sites';

/** Lines of one answer; whoever has more filters by words. */
const LINES = 200;
/** Pages, hosts or records of one answer. */
const PLACES = 40;
/** Characters of raw evidence that a screen shows of one. */
const RAW = 2000;
const ATTESTATIONS = 20;

const NO_ENVIRONMENT = 'This environment does not exist, or not any more.';

/** @returns null where nothing was audited yet; @throws NotFound */
async function newestAudit(environmentId: number): Promise<Audit | null> {
  const environment = await findEnvironment(environmentId);
  if (!environment) throw new NotFound(NO_ENVIRONMENT);
  return environment.lastAuditId ? findAudit(environment.lastAuditId) : null;
}

/** Who vouched for what, by check, newest first. */
async function attestationsOf(environmentId: number, checkIds: string[]) {
  const rows = await newestAttestations(environmentId, checkIds, ATTESTATIONS * checkIds.length);
  const files = new Map(
    (
      await FileRow.findAll({
        where: { id: rows.flatMap((r) => r.attachmentId ?? []) },
        attributes: ['id', 'name', 'type', 'bytes'],
      })
    ).map((f) => [f.id, { id: f.id, name: f.name, type: f.type, bytes: f.bytes }]),
  );
  return (check: string) =>
    rows
      .filter((r) => r.checkId === check)
      .slice(0, ATTESTATIONS)
      .map((r) => ({
        by: r.byName,
        at: r.at.toISOString(),
        done: r.done,
        doesNotApply: Boolean(r.doesNotApply),
        note: r.note,
        place: r.place,
        goodUntil: r.goodUntil,
        goodWhile: r.goodWhile,
        file: r.attachmentId ? (files.get(r.attachmentId) ?? null) : null,
      }));
}

/** What the ledger says of a check itself. */
const aboutCheck = (check: Check | undefined) => ({
  why: check?.why ?? '',
  source: check?.source ?? '',
  scope: check?.scope ?? '',
  attestedForDays: check?.attestedForDays ?? null,
  /** Pictures of pages that stand beside it. */
  pictures: check?.needs.rendered ? ('both' as const) : (check?.pictures ?? null),
});

type Names = ReadonlyMap<number, string>;

async function namesOfPeople(): Promise<Names> {
  return new Map((await everybody()).map((p) => [p.id, p.name]));
}

interface FixLine {
  id: number;
  state: FixState;
  owner: string | null;
  dueDate: string | null;
  returns: number;
}

/** The fixes of an environment, by check. */
async function fixesOf(environmentId: number): Promise<ReadonlyMap<string, FixLine>> {
  const rows = await database().query<FixLine & { checkId: string }>(
    `SELECT f.check_id AS checkId, f.id, f.state, COALESCE(u.name, k.name) AS owner, f.due_date AS dueDate, f.returns
      FROM fix f LEFT JOIN user u ON u.id = f.owner_id LEFT JOIN contact k ON k.id = f.contact_id
      WHERE f.environment_id = :environmentId`,
    { type: QueryTypes.SELECT, replacements: { environmentId } },
  );
  return new Map(rows.map(({ checkId, ...fix }) => [checkId, fix]));
}

function acceptanceLine(row: AcceptanceRow | undefined, names: Names) {
  if (!row) return null;
  const { reason, until, byId, secondedById } = row;
  return {
    id: row.id as number,
    reason,
    until,
    by: names.get(byId) ?? '',
    byId,
    seconded: secondedById ? (names.get(secondedById) ?? '') : null,
  };
}

/** A result as it is kept, with what stands beside the score. */
type Kept = Result & {
  notes?: string[];
  missing?: string;
  proposals?: unknown;
  times?: Record<Part, string>;
  face?: unknown;
};

/** An environment with its newest audit. */
interface Head {
  url: string;
  auditId: number | null;
  lookedAt: string | null;
  startedBy: string;
  finishedAt: Date | null;
  situation: Situation;
  result: string | null;
  checklist: string;
  version: number;
}

/** @throws NotFound */
async function headOf(environmentId: number): Promise<Head> {
  const [head] = await database().query<Head>(
    `SELECT e.url, a.id AS auditId, a.url AS lookedAt, a.started_by AS startedBy, a.finished_at AS finishedAt,
      a.situation, a.result, JSON_VALUE(v.data, '$.name') AS checklist, v.version
      FROM environment e LEFT JOIN audit a ON a.id = e.last_audit_id
      LEFT JOIN checklist_version v ON v.id = a.checklist_version_id WHERE e.id = :environmentId`,
    { type: QueryTypes.SELECT, replacements: { environmentId } },
  );
  if (!head) throw new NotFound(NO_ENVIRONMENT);
  return head;
}

const checklistOf = ({ checklist, version }: Head): string => `${checklist}, version ${version}`;

/** Said where an audit looked at an address that was changed since. */
function ofOldAddress({ lookedAt, url }: Head): string[] {
  if (!lookedAt || lookedAt === url) return [];
  return [
    `All of this was found at ${lookedAt}, the address before it was changed. Audit now to look at ${url}.`,
  ];
}

/** One check in the ledger. */
export interface Line extends LedgerLine {
  scope: string;
  failing: number;
  placeCount: number;
  fix: FixLine | null;
}

/** A line as the table has it. */
type LineRow = Omit<Line, 'accepted' | 'byHand' | 'fix'> & { accepted: number; byHand: number };

async function linesOf(environmentId: number): Promise<Line[]> {
  const [rows, fixes] = await Promise.all([
    database().query<LineRow>(
      `SELECT check_id AS \`check\`, section, title, fault, severity, outcome, accepted, by_hand AS byHand, expected, found, code,
        lost AS points, scope, failing, places AS placeCount
        FROM finding WHERE environment_id = :environmentId ORDER BY position`,
      { type: QueryTypes.SELECT, replacements: { environmentId } },
    ),
    fixesOf(environmentId),
  ]);
  return rows.map((row) => ({
    ...row,
    accepted: Boolean(row.accepted),
    byHand: Boolean(row.byHand),
    fix: fixes.get(row.check) ?? null,
  }));
}

/** The first lines of groups, so many in all. */
function cut(groups: readonly LedgerGroup<Line>[]) {
  let left = LINES;
  return groups.flatMap(({ list, ...group }) => {
    const shown = list.slice(0, left);
    left -= shown.length;
    return shown.length ? [{ ...group, count: list.length, list: shown }] : [];
  });
}

/** The ledger as it opens: groups of lines, sorted, and what lies folded away as one line a section. */
/** What is said where a browser could not look at pages. */
const notBySight = (why: string | undefined): string[] =>
  why === undefined
    ? []
    : [
        `Pages in a browser are missing from this audit: ${why}. Checks that need them can't tell. Audit again.`,
      ];

export async function ledger(environmentId: number, { show = 'needs', words = '', reached }: LedgerDto) {
  const [head, every] = await Promise.all([headOf(environmentId), linesOf(environmentId)]);
  if (!head.auditId) return null;
  const lines = reached === '1' ? every.filter((f) => !isResting(f)) : every;
  const kept = JSON.parse(head.result!) as Kept;
  const { notes = [], missing, proposals: _unseen, times, face: _seen, ...result } = kept;
  return {
    audit: {
      id: head.auditId,
      at: head.finishedAt?.toISOString() ?? null,
      by: head.startedBy,
      situation: head.situation,
      result,
      checklist: checklistOf(head),
    },
    shows: ledgerShows(every),
    groups: cut(ledgerGroups(lines, show, words)),
    folds: (show === 'needs' ? ledgerFolds(lines, words) : []).map(({ list: _, ...fold }) => fold),
    holding: holding(every).map((f) => ({ check: f.check, title: headingOf(f) })),
    manualLeft: every.filter(isManualOpen).length,
    resting: every.filter(isResting).length,
    notes: [...ofOldAddress(head), ...notBySight(missing), ...notes],
    /** When each part was looked at, where that was not at once. */
    times: times ?? null,
  };
}

/** What lies folded away in one section. */
export async function foldedLines(
  environmentId: number,
  { section, words = '' }: FoldedDto,
): Promise<Line[]> {
  const folds = ledgerFolds(await linesOf(environmentId), words);
  return folds.find((f) => f.section === section)?.list.slice(0, LINES) ?? [];
}

/** The sum behind the score: every check that loses points. */
export async function scoreSum(environmentId: number) {
  const head = await headOf(environmentId);
  if (!head.result) throw new NotFound('Nothing was audited here yet.');
  const rows = (await findingsOf(environmentId)).filter((r) => r.outcome === 'failed');
  const {
    score,
    lost,
    coverage,
    gateNote,
    unreached = null,
    unscored = null,
  } = JSON.parse(head.result) as Kept;
  return {
    result: { score, lost, coverage, gateNote, unreached, unscored },
    checklist: checklistOf(head),
    sum: termsOf(rows.map((r) => r.data as JudgedFinding)),
  };
}

const PLACE_ORDER = { failed: 0, cantTell: 1, passed: 2 };

/** One window of what a check looked at: faults first. */
function placesFrom({ places }: JudgedFinding, offset: number) {
  return [...places]
    .sort((a, b) => PLACE_ORDER[a.outcome] - PLACE_ORDER[b.outcome])
    .slice(offset, offset + PLACES)
    .map((p) => (p.raw && p.raw.length > RAW ? { ...p, raw: `${p.raw.slice(0, RAW)} …` } : p));
}

/** Findings in full. @param rows of one environment */
async function inFull(environmentId: number, rows: readonly FindingRow[], audit: Audit) {
  const checkIds = rows.map((r) => r.checkId);
  const [fixes, acceptances, names, attestations, checklist] = await Promise.all([
    fixesOf(environmentId),
    acceptancesOf(environmentId, checkIds),
    namesOfPeople(),
    attestationsOf(environmentId, checkIds),
    checklistVersion(audit.checklistVersionId),
  ]);
  const checkOf: (id: string) => Check | undefined = checksOf(checklist);
  return rows.map((row) => {
    const f = row.data as JudgedFinding;
    return {
      ...f,
      places: placesFrom(f, 0),
      placeCount: f.places.length,
      failing: f.places.filter((p) => p.outcome === 'failed').length,
      points: pointsLost(f),
      ...aboutCheck(checkOf(f.check)),
      attestations: attestations(f.check),
      fix: fixes.get(f.check) ?? null,
      acceptance: acceptanceLine(acceptances.filter((a) => a.checkId === f.check).at(-1), names),
    };
  });
}

const NO_FINDING = 'This finding does not exist, or not any more.';

/** One finding with its evidence. @throws NotFound */
export async function findingInFull(environmentId: number, checkId: string) {
  const audit = await newestAudit(environmentId);
  const row = await findFinding(environmentId, checkId);
  if (!audit || !row) throw new NotFound(NO_FINDING);
  return (await inFull(environmentId, [row], audit))[0]!;
}

/** What a check looked at, a window further down. @throws NotFound */
export async function morePlaces(environmentId: number, checkId: string, offset: number) {
  const row = await findFinding(environmentId, checkId);
  if (!row) throw new NotFound(NO_FINDING);
  return placesFrom(row.data as JudgedFinding, offset);
}

/** The manual checks that wait for somebody, in full, in the order of the checklist. */
export async function manualChecks(environmentId: number) {
  const audit = await newestAudit(environmentId);
  if (!audit) return [];
  const open = (await linesOf(environmentId)).filter(isManualOpen).slice(0, LINES);
  const rows = await findingsOfChecks(
    environmentId,
    open.map((f) => f.check),
  );
  return inFull(environmentId, rows, audit);
}
