/** The night: who has a turn when, and beginning what is due. */
import { Op, QueryTypes } from 'sequelize';
import { nightOf, openSpans, spread, windowOf, type Span } from '#core/schedule/night';
import { startAudits, type Scope } from '#server/audits';
import { checklistById } from '#server/checklists';
import { now } from '#server/platform/clock';
import { database } from '#server/platform/db/connection';
import { announce } from '#server/platform/events';
import { PRIORITY } from '#server/platform/jobs/definition';
import type { ScheduleDto } from './dto';
import { NewsRow, PlannedAudit, ScheduleRow, type OfKind } from './models';
import { partsOfRow, saveSchedule } from './schedules';

/** So far ahead it is planned: what changes later is planned anew. */
const AHEAD_MS = 24 * 3_600_000;
/** What could not begin so long after its time is not done any more that night. */
const LATE_MS = 6 * 3_600_000;
const BY = 'Armband';
/** Turns and news of nights so long ago are forgotten. */
const KEPT_DAYS = 60;

interface Target {
  environmentId: number;
  host: string;
  timeZone: string | null;
}

const WHERE: Record<OfKind, string> = {
  all: '1 = 1',
  site: 's.id = :target',
  client: 's.client_id = :target',
  host: 's.host_profile_id = :target',
  stage: 's.stage = :target',
};

/** The environments that a schedule is for, each with where it is hosted and its site's time zone. */
function targetsOf({ ofKind, ofTarget }: ScheduleRow): Promise<Target[]> {
  return database().query<Target>(
    `SELECT e.id AS environmentId, COALESCE(h.name, SUBSTRING_INDEX(SUBSTRING_INDEX(e.url, '/', 3), '/', -1)) AS host,
      (SELECT JSON_VALUE(b.data, '$.timeZone') FROM brief b WHERE b.site_id = s.id ORDER BY b.version DESC LIMIT 1) AS timeZone
      FROM environment e JOIN site s ON s.id = e.site_id LEFT JOIN host_profile h ON h.id = s.host_profile_id
      WHERE s.stage <> 'retired' AND ${WHERE[ofKind]} ORDER BY e.id`,
    { type: QueryTypes.SELECT, replacements: { target: ofTarget } },
  );
}

const isWhole = (row: ScheduleRow): boolean => !row.parts && !row.checklistId;

function ruleOf({ every, weekday, fromTime: from, toTime: to, notFrom, notTo }: ScheduleRow) {
  const blackout = notFrom && notTo ? { from: notFrom, to: notTo } : undefined;
  return { every, weekday, from, to, blackout };
}

/** One zone's turns in one night. */
async function planZone(
  row: ScheduleRow,
  { zone, span, targets }: { zone: string; span: Span; targets: readonly Target[] },
): Promise<number> {
  const night = nightOf(span, zone);
  const environmentIds = targets.map((t) => t.environmentId);
  const known = await PlannedAudit.findAll({
    where: { scheduleId: row.id, night, environmentId: environmentIds },
    attributes: ['environmentId'],
  });
  const planned = new Set(known.map((k) => k.environmentId));
  const left = targets.filter((t) => !planned.has(t.environmentId));
  if (!left.length) return 0;
  const at = now();
  // a schedule that was switched on in the middle of its night has what is left of it
  const spans = openSpans({ from: at > span.from ? at : span.from, to: span.to }, ruleOf(row).blackout, zone);
  const whole = isWhole(row) ? new Set<number>() : await coveredIn(environmentIds, span);
  const turns = spread(
    left.map((t) => ({ key: t.environmentId, host: t.host })),
    spans,
  );
  await PlannedAudit.bulkCreate(
    turns.map(({ key, at: runAt }) => ({
      scheduleId: row.id,
      environmentId: key,
      night,
      runAt,
      state: whole.has(key) ? ('covered' as const) : ('planned' as const),
      reason: whole.has(key) ? 'everything is looked at in the same night' : null,
    })),
    { ignoreDuplicates: true },
  );
  return turns.length;
}

/** Environments of which everything is looked at within half a day of a window. */
async function coveredIn(environmentIds: readonly number[], { from, to }: Span): Promise<Set<number>> {
  const HALF_DAY_MS = 12 * 3_600_000;
  const whole = await ScheduleRow.findAll({ where: { parts: '', checklistId: null }, attributes: ['id'] });
  const rows = await PlannedAudit.findAll({
    where: {
      scheduleId: whole.map((s) => s.id),
      environmentId: [...environmentIds],
      state: ['planned', 'started'],
      runAt: { [Op.between]: [new Date(from.getTime() - HALF_DAY_MS), new Date(to.getTime() + HALF_DAY_MS)] },
    },
    attributes: ['environmentId'],
  });
  return new Set(rows.map((r) => r.environmentId));
}

/** Plans what comes within a day, each turn once. Those that look at everything come first: they cover the others. */
export async function planAhead(): Promise<void> {
  const at = now();
  const rows = await ScheduleRow.findAll({ where: { isOn: true }, order: [['id', 'ASC']] });
  let planned = 0;
  for (const row of rows.sort((a, b) => Number(isWhole(b)) - Number(isWhole(a)))) {
    if (row.pausedUntil && row.pausedUntil >= at.toISOString().slice(0, 10)) continue;
    const byZone = new Map<string, Target[]>();
    for (const target of await targetsOf(row)) {
      const zone = target.timeZone ?? row.timeZone;
      byZone.set(zone, [...(byZone.get(zone) ?? []), target]);
    }
    for (const [zone, targets] of byZone) {
      const span = windowOf(ruleOf(row), zone, at);
      if (span.from.getTime() - at.getTime() < AHEAD_MS)
        planned += await planZone(row, { zone, span, targets });
    }
  }
  if (planned) announce('SchedulesChanged', {});
}

/** What a schedule looks at; nothing said is everything. */
export async function scopeOf(row: ScheduleRow): Promise<Scope | undefined> {
  const parts = partsOfRow(row);
  if (parts.length) return { parts };
  if (!row.checklistId) return undefined;
  const list = await checklistById(row.checklistId);
  return { checks: list.items.filter((i) => i.on !== false).map((i) => i.check) };
}

const AT_ONCE = 500;

/** Begins what is due, and says of what is too late that it was missed. */
async function beginDue(): Promise<void> {
  const at = now();
  const due = await PlannedAudit.findAll({
    where: { state: 'planned', runAt: { [Op.lte]: at } },
    order: [['runAt', 'ASC']],
    limit: AT_ONCE,
  });
  if (!due.length) return;
  const rows = new Map(
    (await ScheduleRow.findAll({ where: { id: due.map((d) => d.scheduleId) } })).map((s) => [s.id, s]),
  );
  const scopes = new Map<number, Scope | undefined>();
  for (const plan of due) {
    const row = rows.get(plan.scheduleId);
    if (!row) continue;
    if (at.getTime() - plan.runAt.getTime() > LATE_MS) {
      await plan.update({ state: 'missed', reason: 'Armband was not running at that time' });
      continue;
    }
    if (!scopes.has(row.id)) scopes.set(row.id, await scopeOf(row));
    const { refused } = await startAudits([plan.environmentId], BY, {
      priority: PRIORITY.night,
      scope: scopes.get(row.id),
      pageLimit: row.pageLimit,
      // with the audit itself: what it finds is news only where its turn is known
      noted: async (auditId, transaction) => {
        await PlannedAudit.update({ state: 'started', auditId }, { where: { id: plan.id }, transaction });
      },
    });
    const [first] = refused;
    if (first) await plan.update({ state: 'refused', reason: first.reason.slice(0, 300) });
  }
  announce('SchedulesChanged', {});
}

/** So often it is planned anew, by the clock: new sites and other stages are found by then. */
const PLAN_EVERY_MS = 5 * 60_000;
let plannedAt = -Infinity;

/** Plans now and then, and begins what is due. */
export async function runDueSchedules(): Promise<void> {
  const at = now().getTime();
  if (Math.abs(at - plannedAt) >= PLAN_EVERY_MS) {
    plannedAt = at;
    await planAhead();
  }
  await beginDue();
}

/** Saves a schedule, and plans by it what is left of the night. @returns its number */
export async function storeSchedule(input: ScheduleDto, by: string, id?: number): Promise<number> {
  const kept = await saveSchedule(input, by, id);
  await planAhead();
  return kept;
}

/** Forgets nights of long ago. */
export async function deleteOldPlans(): Promise<void> {
  const before = new Date(now().getTime() - KEPT_DAYS * 86_400_000);
  await PlannedAudit.destroy({ where: { runAt: { [Op.lt]: before } } });
  await NewsRow.destroy({ where: { at: { [Op.lt]: before }, told: true } });
}
