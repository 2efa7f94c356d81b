/**
 * A database like that of a large agency after years: thousands of sites, each with two environments that were
 * audited night after night, and the history of their fixes. For benchmarks, and for tests of queries.
 */
import { randomBytes } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { CATALOGUE } from '#core/checks/catalogue/index';
import { catalogueVersion } from '#core/checks/engine/catalogue-version';
import { wordingVersion } from '#core/checks/engine/wording-version';
import type { Finding, Outcome, PlaceResult } from '#core/facts/finding';
import { SEVERITY_WEIGHT } from '#core/facts/finding';
import { pointsLost, scoreOf, type Result } from '#core/score/score';
import { ensureBuiltIn } from '../server/checklists/checklists';
import { database } from '../server/platform/db/connection';
import { migrate } from '../server/platform/db/migrate';
import { useModels } from '../server/platform/db/models';
import { packJson } from '../server/platform/packed';
import { fillStandings } from '../server/reads/standing';
import { verbatim } from '#core/facts/message';

export interface HowMany {
  sites: number;
  /** Of each environment. */
  audits: number;
}

const TEMPLATES = 40;
const ENVIRONMENTS = 2;
const SITES_PER_CLIENT = 3;
const PEOPLE = ['Wren Holm', 'Arlo Sedge', 'Tamsin Reef', 'Odo Lark', 'Pell Marsh'];
const PLACES = [
  'Sallow',
  'Tarn',
  'Firth',
  'Curlew',
  'Windrow',
  'Saltmarsh',
  'Heron',
  'Quay',
  'Lantern',
  'Reedling',
];
const TRADES = [
  'Bakery',
  'Choir',
  'Museum',
  'Ferries',
  'Boatyard',
  'Library',
  'Pottery',
  'Theatre',
  'Kites',
  'Tram',
];

/** Numbers that are the same with each run (mulberry32, Tommy Ettinger, public domain). */
function dice(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Of a hundred checks some three fail, as on sites that are looked after. */
function outcomeOf(throwOf: number, byHand: boolean | undefined): Outcome {
  if (byHand) return throwOf < 0.3 ? 'untested' : 'passed';
  if (throwOf < 0.03) return 'failed';
  if (throwOf < 0.05) return 'cantTell';
  return throwOf < 0.25 ? 'inapplicable' : 'passed';
}

const placesOf = (outcome: Outcome, count: number): PlaceResult[] =>
  outcome === 'failed'
    ? Array.from({ length: count }, (_, i) => ({
        place: `/page-${i}/`,
        outcome: i % 3 ? ('failed' as const) : ('passed' as const),
        found: `what stands on page ${i}`,
        ...verbatim(`what stands on page ${i}`),
      })).reverse()
    : [];

/** What an audit found of one environment. */
function findingsOf(template: number): Finding[] {
  const next = dice(template + 1);
  return CATALOGUE.map((check) => {
    const outcome = outcomeOf(next(), check.byHand);
    const places = placesOf(outcome, 1 + Math.floor(next() * 12));
    const passing = places.filter((p) => p.outcome === 'passed').length;
    const isDecided = outcome === 'passed' || outcome === 'failed';
    return {
      check: check.id,
      section: check.section,
      title: check.title,
      fault: check.fault,
      severity: check.severity,
      weight: SEVERITY_WEIGHT[check.severity],
      outcome,
      expected: 'what the brief says',
      ...verbatim('otherwise'),
      ...(outcome === 'failed'
        ? { found: `${places.length - passing} of ${places.length} pages: otherwise` }
        : {}),
      ...(outcome === 'cantTell' ? { reason: 'nothing answered in time' } : {}),
      places,
      credit: isDecided
        ? { num: outcome === 'passed' ? 1 : passing, den: outcome === 'passed' ? 1 : places.length }
        : null,
      ...(check.byHand ? { byHand: true } : {}),
    };
  });
}

interface Template {
  findings: Finding[];
  result: Result;
}

const run = (sql: string, replacements: unknown[] = []): Promise<unknown> =>
  database().query(sql, { replacements });

async function bulk(table: string, columns: string[], rows: unknown[][]): Promise<void> {
  const AT_ONCE = 500;
  for (let i = 0; i < rows.length; i += AT_ONCE) {
    const some = rows.slice(i, i + AT_ONCE);
    await run(
      `INSERT INTO ${table} (${columns.join(', ')}) VALUES ${some.map((r) => `(${r.map(() => '?').join(', ')})`).join(', ')}`,
      some.flat(),
    );
  }
}

/** The findings and fixes of each template, as tables that are copied inside the database. */
async function writeTemplates(templates: readonly Template[]): Promise<void> {
  await run(`CREATE OR REPLACE TABLE many_finding AS SELECT 0 AS template, f.* FROM finding f LIMIT 0`);
  await run('ALTER TABLE many_finding DROP COLUMN environment_id, DROP COLUMN audit_id, ADD KEY (template)');
  await bulk(
    'many_finding',
    [
      'template',
      'check_id',
      'section',
      'severity',
      'outcome',
      'accepted',
      'position',
      'title',
      'fault',
      'code',
      'wording',
      'scope',
      'by_hand',
      'expected',
      'found',
      'places',
      'failing',
      'lost',
      'data',
    ],
    templates.flatMap(({ findings }, template) =>
      findings.map((f, position) => [
        template,
        f.check,
        f.section,
        f.severity,
        f.outcome,
        0,
        position,
        f.title,
        f.fault,
        f.code,
        wordingVersion(),
        CATALOGUE[position]!.scope,
        f.byHand ? 1 : 0,
        f.expected ?? null,
        f.found ?? f.reason ?? null,
        f.places.length,
        f.places.filter((p) => p.outcome === 'failed').length,
        pointsLost(f),
        JSON.stringify(f),
      ]),
    ),
  );
  await run(
    'CREATE OR REPLACE TABLE many_fix (template INT, check_id VARCHAR(80), severity VARCHAR(8), state VARCHAR(16), KEY (template))',
  );
  await bulk(
    'many_fix',
    ['template', 'check_id', 'severity', 'state'],
    templates.flatMap(({ findings }, template) => [
      ...findings
        .filter((f) => f.outcome === 'failed')
        .map((f, i) => [template, f.check, f.severity, i % 5 ? 'open' : 'in progress']),
      // mended in the years before
      ...findings
        .filter((f, i) => f.outcome === 'passed' && (i + template) % 9 === 0)
        .map((f, i) => [template, f.check, f.severity, i % 2 ? 'verified' : 'gone']),
    ]),
  );
  await run(
    'CREATE OR REPLACE TABLE many_audit (template INT PRIMARY KEY, score INT, coverage INT, gate VARCHAR(10), result MEDIUMTEXT, kept MEDIUMTEXT, evidence LONGBLOB, findings LONGBLOB)',
  );
  await bulk(
    'many_audit',
    ['template', 'score', 'coverage', 'gate', 'result', 'kept', 'evidence', 'findings'],
    await Promise.all(
      templates.map(async ({ findings, result }, template) => [
        template,
        result.score,
        result.coverage,
        result.gate,
        JSON.stringify(result),
        JSON.stringify({ band: result.band, gateNote: result.gateNote, provisional: result.provisional }),
        randomBytes(2000),
        await packJson(findings),
      ]),
    ),
  );
}

/** People, clients, sites, environments and briefs. */
async function writeSites(sites: number): Promise<void> {
  await bulk(
    'user',
    ['email', 'name', 'password_hash', 'created_at'],
    PEOPLE.map((name) => [
      `${name.split(' ')[0]!.toLowerCase()}@marram-studio.example`,
      name,
      '',
      new Date(),
    ]),
  );
  const numbers = Array.from({ length: sites }, (_, i) => i);
  const nameOf = (i: number): string =>
    `${PLACES[i % PLACES.length]} ${TRADES[Math.floor(i / PLACES.length) % TRADES.length]} ${1 + Math.floor(i / (PLACES.length * TRADES.length))}`;
  await bulk(
    'client',
    ['id', 'name'],
    numbers
      .filter((i) => i % SITES_PER_CLIENT === 0)
      .map((i) => [i / SITES_PER_CLIENT + 1, `${nameOf(i)} Trust`]),
  );
  const stages = ['building', 'pre-launch', 'launched', 'launched', 'launched', 'retired'];
  const day = (n: number): string => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
  await bulk(
    'site',
    ['id', 'client_id', 'name', 'stage', 'replaces', 'launch_date', 'owner_id', 'created_at'],
    numbers.map((i) => {
      const stage = stages[i % stages.length]!;
      const launch = stage === 'launched' || stage === 'retired' ? -(i % 900) - 1 : (i % 90) + 1;
      return [
        i + 1,
        Math.floor(i / SITES_PER_CLIENT) + 1,
        nameOf(i),
        stage,
        0,
        day(launch),
        (i % PEOPLE.length) + 1,
        new Date(),
      ];
    }),
  );
  await bulk(
    'environment',
    ['id', 'site_id', 'name', 'kind', 'url', 'access', 'position', 'situation', 'last_audit_id'],
    numbers.flatMap((i) => [
      [
        2 * i + 1,
        i + 1,
        'Staging',
        'before',
        `https://s${i}.cairn-draft.example/`,
        'open',
        0,
        'staging',
        null,
      ],
      [2 * i + 2, i + 1, 'Live', 'live', `https://www.site-${i}.example/`, 'open', 1, 'live', null],
    ]),
  );
  await bulk(
    'brief',
    ['id', 'site_id', 'version', 'data', 'saved_by', 'saved_at'],
    numbers.map((i) => [i + 1, i + 1, 1, JSON.stringify({ name: nameOf(i) }), PEOPLE[0], new Date()]),
  );
}

/** What was audited and mended, copied inside the database: environment by environment from its template. */
async function writeHistory(sites: number, audits: number): Promise<void> {
  const [list] = await database().query<{ id: number }>('SELECT MIN(id) AS id FROM checklist_version', {
    type: QueryTypes.SELECT,
  });
  const template = `(e.id % ${TEMPLATES})`;
  const environments = sites * ENVIRONMENTS;
  // night after night: the audits of the first night come first
  await run(
    `INSERT INTO audit (id, environment_id, status, situation, brief_id, checklist_version_id, started_by, started_at,
      finished_at, score, coverage, gate, result, url, score_before)
      SELECT (n.seq - 1) * ${environments} + e.id, e.id, 'done', e.situation, e.site_id, ${list!.id}, 'Armband',
      NOW(3) - INTERVAL ${audits} - n.seq DAY, NOW(3) - INTERVAL ${audits} - n.seq DAY, a.score, a.coverage, a.gate,
      IF(n.seq = ${audits}, a.result, NULL), e.url, a.score
      FROM seq_1_to_${audits} n JOIN environment e JOIN many_audit a ON a.template = ${template} ORDER BY n.seq, e.id`,
  );
  await run(`UPDATE environment e SET last_audit_id = ${(audits - 1) * environments} + e.id`);
  await run(
    `INSERT INTO verdict (audit_id, environment_id, at, cause, by_name, situation, brief_version, checklist_version_id,
      catalogue, evidence_version, score, coverage, gate, result)
      SELECT u.id, u.environment_id, u.finished_at, 'audit', 'Armband', u.situation, 1, u.checklist_version_id,
      ?, 2, u.score, u.coverage, u.gate, a.kept
      FROM audit u JOIN many_audit a ON a.template = u.environment_id % ${TEMPLATES} ORDER BY u.id`,
    [catalogueVersion()],
  );
  for (const [table, column, extra] of [
    ['audit_evidence', 'evidence', ', 2'],
    ['audit_findings', 'findings', ''],
  ] as const)
    await run(
      `INSERT INTO ${table} (audit_id, data${extra ? ', version' : ''})
        SELECT e.last_audit_id, a.${column}${extra} FROM environment e JOIN many_audit a ON a.template = ${template}`,
    );
  // two at once, as there are two processors
  const half = Math.ceil(environments / 2);
  const halves = [`e.id <= ${half}`, `e.id > ${half}`];
  await Promise.all(
    halves.map((which) =>
      run(
        `INSERT INTO finding (environment_id, audit_id, check_id, section, severity, outcome, accepted, position, title,
      fault, code, wording, scope, by_hand, expected, found, places, failing, lost, data)
      SELECT STRAIGHT_JOIN e.id, e.last_audit_id, f.check_id, f.section, f.severity, f.outcome, f.accepted, f.position,
      f.title, f.fault, f.code, f.wording, f.scope, f.by_hand, f.expected, f.found, f.places, f.failing, f.lost, f.data
      FROM environment e JOIN many_finding f ON f.template = ${template} WHERE ${which}`,
      ),
    ),
  );
  await run(
    `INSERT INTO fix (environment_id, check_id, severity, state, places, returns, owner_id, due_date, opened_at, changed_at)
      SELECT STRAIGHT_JOIN e.id, f.check_id, f.severity, f.state, '[]', e.id % 7 = 0, IF(e.id % 3, NULL, 1 + e.id % ${PEOPLE.length}),
      IF(e.id % 4, NULL, CURDATE() + INTERVAL e.id % 60 DAY), NOW(3) - INTERVAL ${audits} DAY, NOW(3)
      FROM environment e JOIN many_fix f ON f.template = ${template}`,
  );
  for (const [kind, to, where] of [
    ['opened', 'open', '1 = 1'],
    ['gone', 'gone', "state = 'gone'"],
    ['verified', 'verified', "state = 'verified'"],
  ])
    await run(
      `INSERT INTO fix_event (fix_id, kind, by_name, at, to_state) SELECT id, ?, 'audit', opened_at, ? FROM fix WHERE ${where}`,
      [kind, to],
    );
}

/**
 * Fills an empty database, by the connection of this process.
 * @param say told what is being done
 */
export async function fillManySites(
  { sites, audits }: HowMany,
  say: (what: string) => void = () => undefined,
): Promise<void> {
  useModels();
  await migrate();
  await ensureBuiltIn();
  const templates = Array.from({ length: TEMPLATES }, (_, i) => {
    const findings = findingsOf(i);
    return { findings, result: scoreOf(findings) };
  });
  say('templates');
  await writeTemplates(templates);
  say(`${sites} sites`);
  await writeSites(sites);
  say(`${sites * ENVIRONMENTS * audits} audits and the fixes`);
  await writeHistory(sites, audits);
  for (const table of ['many_finding', 'many_fix', 'many_audit']) await run(`DROP TABLE ${table}`);
  say('where each site stands');
  await fillStandings();
  // else the server plans by what it guessed when the tables were empty, until it gets round to counting
  const tables = await database().query<{ name: string }>('SHOW TABLES', { type: QueryTypes.SELECT });
  await database().query(`ANALYZE TABLE ${tables.map((t) => Object.values(t)[0]).join(', ')}`, {
    type: QueryTypes.SELECT,
  });
}
