/**
 * Where each site stands, kept beside its rows: what the long lists are sorted, filtered and counted by. Whatever
 * changes a site, its audits or its fixes ends here, in the same transaction.
 */
import { QueryTypes, type Transaction } from 'sequelize';
import { checkById } from '#core/checks/catalogue/index';
import type { Outcome, Severity } from '#core/facts/finding';
import { SEVERITIES } from '#core/facts/finding';
import { CLOSED_STATES, OPEN_STATES, type FixState } from '#core/facts/fix';
import type { EnvironmentKind, Stage } from '#core/facts/situation';
import type { Gate, Result } from '#core/score/score';
import { database } from '#server/platform/db/connection';
import { downward, sortKey, wholePoints } from '#server/platform/db/sort-key';
import { inTransaction } from '#server/platform/db/transaction';
import { indexedWords } from '#server/platform/db/words';
import { subscribe } from '#server/platform/domain-events';
import { lockSites } from '#server/sites';

interface SiteFacts {
  id: number;
  name: string;
  client: string;
  stage: Stage;
  launchDate: string | null;
  hostProfile: string | null;
}

interface EnvironmentFacts {
  id: number;
  siteId: number;
  name: string;
  kind: EnvironmentKind;
  url: string;
  finishedAt: Date | null;
  score: number | null;
  gate: Gate | null;
  result: string | null;
  openFixes: number;
}

interface FixFacts {
  id: number;
  siteId: number;
  environmentId: number;
  environment: string;
  checkId: string;
  severity: Severity;
  state: FixState;
  ownerId: number | null;
  contactId: number | null;
  /** Of whichever of the two. */
  owner: string | null;
  dueDate: string | null;
  title: string | null;
  scope: string | null;
  found: string | null;
  outcome: Outcome | null;
  accepted: number | null;
  failing: number | null;
  lost: number | null;
  kept: string;
}

interface OldStanding {
  siteId: number;
  stage: Stage;
  gate: string;
  faults: string;
}

/** A site that was never audited stands where it can be seen: after what is held. */
const GATES = ['held', 'never', 'undecided', 'clear'] as const;
type StandingGate = (typeof GATES)[number];

/** The environment that stands for a site: the live one once launched, before that the last environment before it. */
export function shownOf<E extends { kind: EnvironmentKind }>(
  stage: Stage,
  environments: readonly E[],
): E | undefined {
  const live = environments.find((e) => e.kind === 'live');
  const before = environments.filter((e) => e.kind === 'before').at(-1);
  return (stage === 'launched' || !before ? live : before) ?? environments[0];
}

/** What sorts before and after what is not known. */
const KNOWN = 0;
const UNKNOWN = 1;
/** With what every key begins whose row has nothing known to sort by: it comes last, whichever way round. */
export const UNKNOWN_FROM = sortKey([UNKNOWN], 0).split(' ')[0]!;

/** The roster's columns, each as a key. */
function rosterKeys(site: SiteFacts, shown: EnvironmentFacts | undefined, gate: StandingGate, fixes: number) {
  const lost = shown?.result ? (JSON.parse(shown.result) as Result).lost : 0;
  // what is the same otherwise stands by points lost, and never by its name alone
  const rest = [downward(wholePoints(lost)), site.name];
  const key = (...parts: (string | number)[]): string => sortKey([KNOWN, ...parts, ...rest], site.id);
  const unknown = sortKey([UNKNOWN, ...rest], site.id);
  const { score = null, finishedAt = null } = shown ?? {};
  return {
    bySite: sortKey([KNOWN, site.name], site.id),
    byStage: site.launchDate ? key(Date.parse(site.launchDate) / 86_400_000) : unknown,
    byScore: score === null ? unknown : key(score),
    byGate: key(GATES.indexOf(gate)),
    byFixes: key(fixes),
    byAudit: finishedAt === null ? unknown : key(finishedAt.getTime() / 1000),
  };
}

/** What a site adds to the counts of one fault: whole numbers that can be added and taken away again. */
type Share = [
  sites: number,
  blockers: number,
  majors: number,
  minors: number,
  failing: number,
  lost: number,
  gates: number,
];
const SHARE_COLUMNS = ['sites', 'blockers', 'majors', 'minors', 'failing', 'lost', 'gates'] as const;
const NOTHING: Share = [0, 0, 0, 0, 0, 0, 0];
/** Whose a fix is: everybody's, nobody's, a client's contact's, or by a person's number. */
export const EVERYBODYS = 'all';
export const NOBODYS = '0';
export const CLIENTS = 'client';
export type Whose = string;
/** By whose it is, and the check. */
type Faults = Record<string, Share>;

const whoseIs = ({ ownerId, contactId }: FixFacts): Whose =>
  ownerId ? String(ownerId) : contactId ? CLIENTS : NOBODYS;

const holdsGate = (f: FixFacts): boolean => f.severity === 'blocker' && f.outcome === 'failed' && !f.accepted;

function faultsOf(fixes: readonly FixFacts[]): Faults {
  const faults: Faults = {};
  for (const f of fixes) {
    if (CLOSED_STATES.has(f.state)) continue;
    for (const whose of [EVERYBODYS, whoseIs(f)]) {
      const [, blockers, majors, minors, failing, lost, gates] = faults[`${whose} ${f.checkId}`] ?? NOTHING;
      faults[`${whose} ${f.checkId}`] = [
        1,
        blockers + Number(f.severity === 'blocker'),
        majors + Number(f.severity === 'major'),
        minors + Number(f.severity === 'minor'),
        failing + (f.failing ?? 0),
        lost + wholePoints(f.lost ?? 0),
        gates + Number(holdsGate(f)),
      ];
    }
  }
  return faults;
}

/** Where no finding names a check any more, the catalogue does. */
export const faultOf = (check: string, fault: string | null): string =>
  fault || (checkById.get(check)?.fault ?? check);

/** What a fix is found and sorted by. */
function fixKeys(f: FixFacts, site: SiteFacts, ofSite: readonly number[]) {
  const worst = [SEVERITIES.indexOf(f.severity), downward(wholePoints(f.lost ?? 0)), site.name];
  const key = (...parts: (string | number)[]): string => sortKey([...parts, ...worst], f.id);
  const isClosed = CLOSED_STATES.has(f.state);
  return {
    siteId: site.id,
    closed: Number(isClosed),
    byWorst: key(),
    // a closed one does not move when another of its site changes
    bySite: key(...(isClosed ? [] : ofSite), site.name, site.id),
    byPerson: f.owner ? key(KNOWN, f.owner, f.ownerId ?? 0) : key(UNKNOWN),
    byDue: f.dueDate ? key(KNOWN, Date.parse(f.dueDate) / 86_400_000) : key(UNKNOWN),
    words: indexedWords([
      f.checkId,
      faultOf(f.checkId, f.title),
      f.found,
      site.name,
      site.client,
      f.environment,
      f.state,
      f.severity,
      f.owner,
    ]),
  };
}

/** By which its fixes stand among those of other sites: the gravest of them, then the points they cost. */
function placeOfSite(fixes: readonly FixFacts[]): number[] {
  const open = fixes.filter((f) => !CLOSED_STATES.has(f.state));
  return [
    Math.min(SEVERITIES.length, ...open.map((f) => SEVERITIES.indexOf(f.severity))),
    downward(wholePoints(open.reduce((sum, f) => sum + (f.lost ?? 0), 0))),
  ];
}

const grouped = <T extends { siteId: number }>(rows: readonly T[]): Map<number, T[]> => {
  const out = new Map<number, T[]>();
  for (const row of rows) {
    const list = out.get(row.siteId);
    if (list) list.push(row);
    else out.set(row.siteId, [row]);
  }
  return out;
};

/** All that standings are made of, read in a handful of queries. */
async function readFacts(siteIds: readonly number[], transaction: Transaction) {
  const select = <T extends object>(sql: string): Promise<T[]> =>
    database().query<T>(sql, { type: QueryTypes.SELECT, replacements: { siteIds }, transaction });
  const sites = await select<SiteFacts>(
    `SELECT s.id, s.name, c.name AS client, s.stage, IF(s.stage = 'launched', COALESCE(DATE(s.launched_at), s.launch_date), s.launch_date) AS launchDate, h.name AS hostProfile
      FROM site s JOIN client c ON c.id = s.client_id LEFT JOIN host_profile h ON h.id = s.host_profile_id
      WHERE s.id IN (:siteIds)`,
  );
  const environments = await select<EnvironmentFacts>(
    `SELECT e.id, e.site_id AS siteId, e.name, e.kind, e.url, e.open_fixes AS openFixes, a.finished_at AS finishedAt,
      a.score, a.gate, a.result
      FROM environment e LEFT JOIN audit a ON a.id = e.last_audit_id
      WHERE e.site_id IN (:siteIds) ORDER BY e.site_id, e.position`,
  );
  const fixes = await select<FixFacts>(
    `SELECT f.id, e.site_id AS siteId, f.environment_id AS environmentId, e.name AS environment,
      f.check_id AS checkId, f.severity, f.state, f.owner_id AS ownerId, f.contact_id AS contactId,
      COALESCE(u.name, k.name) AS owner, f.due_date AS dueDate, COALESCE(f.title, d.fault) AS title,
      d.scope, d.found, d.outcome, d.accepted, d.failing, d.lost,
      CONCAT_WS('\\n', f.site_id, f.closed, f.by_worst, f.by_site, f.by_person, f.by_due, f.words) AS kept
      FROM environment e JOIN fix f ON f.environment_id = e.id LEFT JOIN user u ON u.id = f.owner_id
      LEFT JOIN contact k ON k.id = f.contact_id
      LEFT JOIN finding d ON d.environment_id = f.environment_id AND d.check_id = f.check_id
      WHERE e.site_id IN (:siteIds)`,
  );
  const before = await select<OldStanding>(
    'SELECT site_id AS siteId, stage, gate, faults FROM standing WHERE site_id IN (:siteIds)',
  );
  return { sites, environments: grouped(environments), fixes: grouped(fixes), before: grouped(before) };
}

/** What is added to counts and taken from them, whole numbers by key. */
class Changes {
  private readonly of = new Map<string, number[]>();

  add(key: string, values: readonly number[], sign: 1 | -1): void {
    const now = this.of.get(key) ?? values.map(() => 0);
    this.of.set(
      key,
      now.map((n, i) => n + sign * values[i]!),
    );
  }

  /** What is not nothing, in one order always, so that two who add at once do not wait for each other. */
  rows(): [key: string, values: number[]][] {
    return [...this.of].filter(([, values]) => values.some(Boolean)).sort(([a], [b]) => (a < b ? -1 : 1));
  }
}

const marks = (count: number): string => Array.from({ length: count }, () => '?').join(', ');

async function write(sql: string, replacements: unknown[], transaction: Transaction): Promise<void> {
  await database().query(sql, { replacements, transaction });
}

/** Rows of one statement, none of which is longer than the server takes. */
const AT_ONCE = 200;

async function insertRows(
  into: string,
  rows: readonly (string | number | null)[][],
  onDuplicate: string,
  transaction: Transaction,
): Promise<void> {
  for (let i = 0; i < rows.length; i += AT_ONCE) {
    const some = rows.slice(i, i + AT_ONCE);
    await write(
      `INSERT INTO ${into} VALUES ${some.map((row) => `(${marks(row.length)})`).join(', ')}
        ON DUPLICATE KEY UPDATE ${onDuplicate}`,
      some.flat(),
      transaction,
    );
  }
}

async function addToCounts({ counts, faults, about }: Tally, transaction: Transaction): Promise<void> {
  await insertRows(
    'standing_count (stage, gate, sites)',
    counts.rows().map(([key, [sites]]) => [...key.split('\n'), sites!]),
    'sites = sites + VALUES(sites)',
    transaction,
  );
  await insertRows(
    `fault (whose, check_id, title, scope, ${SHARE_COLUMNS.join(', ')})`,
    faults.rows().map(([key, share]) => {
      const [whose, check] = key.split(' ') as [string, string];
      const { title, scope } = about.get(check) ?? {};
      return [whose, check, title ?? '', scope ?? '', ...share];
    }),
    [
      ...['title', 'scope'].map((c) => `${c} = IF(VALUES(${c}) = '', ${c}, VALUES(${c}))`),
      ...SHARE_COLUMNS.map((c) => `${c} = ${c} + VALUES(${c})`),
    ].join(', '),
    transaction,
  );
}

async function writeFixes(
  fixes: readonly FixFacts[],
  site: SiteFacts,
  transaction: Transaction,
): Promise<void> {
  const place = placeOfSite(fixes);
  const changed = fixes.flatMap((f) => {
    const { siteId, closed, byWorst, bySite, byPerson, byDue, words } = fixKeys(f, site, place);
    const isSame = f.kept === [siteId, closed, byWorst, bySite, byPerson, byDue, words].join('\n');
    return isSame ? [] : [{ id: f.id, siteId, closed, byWorst, bySite, byPerson, byDue, words }];
  });
  if (!changed.length) return;
  const key = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_bin';
  await write(
    `UPDATE fix f JOIN JSON_TABLE(?, '$[*]' COLUMNS (
        id INT UNSIGNED PATH '$.id', siteId INT UNSIGNED PATH '$.siteId', closed TINYINT PATH '$.closed',
        byWorst VARCHAR(191) ${key} PATH '$.byWorst', bySite VARCHAR(191) ${key} PATH '$.bySite',
        byPerson VARCHAR(191) ${key} PATH '$.byPerson', byDue VARCHAR(191) ${key} PATH '$.byDue',
        words TEXT CHARACTER SET ascii COLLATE ascii_bin PATH '$.words')) n ON n.id = f.id
      SET f.site_id = n.siteId, f.closed = n.closed, f.by_worst = n.byWorst, f.by_site = n.bySite,
        f.by_person = n.byPerson, f.by_due = n.byDue, f.words = n.words`,
    [JSON.stringify(changed)],
    transaction,
  );
}

const isOpen = (f: FixFacts): boolean => OPEN_STATES.includes(f.state);

async function countOpenFixes(
  environments: readonly EnvironmentFacts[],
  fixes: readonly FixFacts[],
  transaction: Transaction,
): Promise<void> {
  for (const e of environments) {
    const count = fixes.filter((f) => f.environmentId === e.id && isOpen(f)).length;
    if (count !== e.openFixes)
      await write('UPDATE environment SET open_fixes = ? WHERE id = ?', [count, e.id], transaction);
  }
}

/** What changes in the counts over all sites. */
interface Tally {
  counts: Changes;
  faults: Changes;
  /** A fix that knows title and scope of a check. */
  about: Map<string, FixFacts>;
}

/** Where one site stands, as a row; what it adds to the counts goes into the tally. */
function standingOf(
  site: SiteFacts,
  environments: readonly EnvironmentFacts[],
  fixes: readonly FixFacts[],
  { counts, faults, about }: Tally,
): (string | number | null)[] {
  const shown = shownOf(site.stage, environments);
  const gate: StandingGate = shown?.gate ?? 'never';
  const openFixes = fixes.filter(isOpen).length;
  const own = faultsOf(fixes);
  counts.add(`${site.stage}\n${gate}`, [1], 1);
  for (const [key, share] of Object.entries(own)) faults.add(key, share, 1);
  for (const f of fixes) if (f.title || !about.has(f.checkId)) about.set(f.checkId, f);
  const worst = shown?.result ? (JSON.parse(shown.result) as Result).worst : undefined;
  const words = [
    site.name,
    site.client,
    site.stage,
    site.hostProfile,
    shown?.gate,
    worst?.title,
    worst?.found,
    ...environments.map((e) => e.url),
  ];
  return [
    site.id,
    shown?.id ?? null,
    site.stage,
    gate,
    openFixes,
    indexedWords(words),
    JSON.stringify(own),
    ...Object.values(rosterKeys(site, shown, gate, openFixes)),
  ];
}

/**
 * Reckons anew where sites stand, and with them all that is counted over sites. What is not there any more is left
 * out.
 */
export async function updateStanding(siteIds: readonly number[], transaction: Transaction): Promise<void> {
  if (!siteIds.length) return;
  await lockSites(siteIds, transaction);
  const facts = await readFacts(siteIds, transaction);
  const tally: Tally = { counts: new Changes(), faults: new Changes(), about: new Map() };
  const rows: (string | number | null)[][] = [];
  for (const site of facts.sites) {
    const environments = facts.environments.get(site.id) ?? [];
    const fixes = facts.fixes.get(site.id) ?? [];
    const [before] = facts.before.get(site.id) ?? [];
    if (before) takeAway(before, tally);
    rows.push(standingOf(site, environments, fixes, tally));
    await writeFixes(fixes, site, transaction);
    await countOpenFixes(environments, fixes, transaction);
  }
  const columns = [
    'environment_id',
    'stage',
    'gate',
    'open_fixes',
    'words',
    'faults',
    'by_site',
    'by_stage',
    'by_score',
    'by_gate',
    'by_fixes',
    'by_audit',
  ];
  await insertRows(
    `standing (site_id, ${columns.join(', ')})`,
    rows,
    columns.map((c) => `${c} = VALUES(${c})`).join(', '),
    transaction,
  );
  await addToCounts(tally, transaction);
}

function takeAway({ stage, gate, faults: own }: OldStanding, { counts, faults }: Tally): void {
  counts.add(`${stage}\n${gate}`, [1], -1);
  for (const [key, share] of Object.entries(JSON.parse(own) as Faults)) faults.add(key, share, -1);
}

/** Takes sites out of all counts, before they are deleted. */
async function deleteStanding(siteIds: readonly number[], transaction: Transaction): Promise<void> {
  const { before } = await readFacts(siteIds, transaction);
  const tally: Tally = { counts: new Changes(), faults: new Changes(), about: new Map() };
  for (const [standing] of before.values()) takeAway(standing!, tally);
  await write(`DELETE FROM standing WHERE site_id IN (${marks(siteIds.length)})`, [...siteIds], transaction);
  await addToCounts(tally, transaction);
}

const BATCH = 50;
const WORKERS = 2;

/** Reckons where sites stand of which that is not kept yet: after an update, and after many rows were filled in. */
export async function fillStandings(): Promise<void> {
  for (;;) {
    const missing = await database().query<{ id: number }>(
      `SELECT s.id FROM site s LEFT JOIN standing t ON t.site_id = s.id
        WHERE t.site_id IS NULL ORDER BY s.id LIMIT ${BATCH * WORKERS}`,
      { type: QueryTypes.SELECT },
    );
    if (!missing.length) return;
    const batches = Array.from({ length: WORKERS }, (_, i) =>
      missing.slice(i * BATCH, (i + 1) * BATCH).map((s) => s.id),
    );
    await Promise.all(
      batches.map((siteIds) => inTransaction((transaction) => updateStanding(siteIds, transaction))),
    );
  }
}

/** Lists follow what happens to sites. */
export function connectStanding(): void {
  subscribe('SitesChanged', ({ siteIds }, transaction) => updateStanding(siteIds, transaction));
  subscribe('SitesDeleted', ({ siteIds }, transaction) => deleteStanding(siteIds, transaction));
}
