/** The night that is next or under way: what runs, how long that will take by the last runs, and what could not. */
import { QueryTypes } from 'sequelize';
import { checksOf } from '#core/checks/engine/checklist';
import type { Part } from '#core/facts/parts';
import { auditDurations, partsOfScope } from '#server/audits';
import { checklistById } from '#server/checklists';
import { clockRate, now } from '#server/platform/clock';
import { database } from '#server/platform/db/connection';
import { ScheduleRow } from './models';
import { scopeOf } from './planning';

const AT_ONCE = 2;
const NAMED = 40;
const MOST_REASONS = 3;

interface Turn {
  scheduleId: number;
  schedule: string;
  state: string;
  status: string | null;
  error: string | null;
  reason: string | null;
  runAt: Date;
  siteId: number;
  site: string;
  environmentId: number;
  environment: string;
}

const BACK_HOURS = 14;
const AHEAD_HOURS = 24;

/** All turns from the last night on, until a day from now. */
function turns(): Promise<Turn[]> {
  const at = now().getTime();
  return database().query<Turn>(
    `SELECT p.schedule_id AS scheduleId, c.name AS schedule, p.state, a.status, a.error, p.reason, p.run_at AS runAt,
      s.id AS siteId, s.name AS site, e.id AS environmentId, e.name AS environment
      FROM planned_audit p JOIN schedule c ON c.id = p.schedule_id JOIN environment e ON e.id = p.environment_id
      JOIN site s ON s.id = e.site_id LEFT JOIN audit a ON a.id = p.audit_id
      WHERE p.run_at BETWEEN ? AND ? ORDER BY p.run_at, p.id`,
    {
      type: QueryTypes.SELECT,
      replacements: [new Date(at - BACK_HOURS * 3_600_000), new Date(at + AHEAD_HOURS * 3_600_000)],
    },
  );
}

/** How a turn stands, in one word. */
function wordOf({ state, status }: Turn): 'planned' | 'running' | 'done' | 'covered' | 'could not' {
  if (state === 'planned' || state === 'covered') return state;
  if (state !== 'started' || status === 'failed' || status === 'stopped') return 'could not';
  return status === 'done' ? 'done' : 'running';
}

/** Why it could not run, in words. */
const reasonOf = ({ reason, error, status, state }: Turn): string =>
  reason ?? error ?? (status === 'stopped' ? 'it was stopped' : state);

/** Each reason once, the most frequent first. */
function reasonsOf(list: readonly Turn[]): { why: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const turn of list)
    if (wordOf(turn) === 'could not') counts.set(reasonOf(turn), (counts.get(reasonOf(turn)) ?? 0) + 1);
  return [...counts]
    .map(([why, count]) => ({ why, count }))
    .sort((a, b) => b.count - a.count)
    .slice(0, MOST_REASONS);
}

/** What the schedules that are planned look at, by their number; nothing for everything. */
async function partsOfSchedules(ids: readonly number[]): Promise<Map<number, Part[] | null>> {
  const rows = await ScheduleRow.findAll({ where: { id: [...ids] } });
  return new Map(
    await Promise.all(
      rows.map(async (row): Promise<[number, Part[] | null]> => {
        const scope = await scopeOf(row);
        const list = row.checklistId ? checksOf(await checklistById(row.checklistId)) : () => undefined;
        return [row.id, scope ? partsOfScope(scope, list) : null];
      }),
    ),
  );
}

export async function tonight() {
  const all = await turns();
  const expectedMs = await auditDurations();
  const groups = new Map<number, Turn[]>();
  const parts = await partsOfSchedules([...new Set(all.map((t) => t.scheduleId))]);
  for (const turn of all) groups.set(turn.scheduleId, [...(groups.get(turn.scheduleId) ?? []), turn]);
  const count = (list: readonly Turn[], word: ReturnType<typeof wordOf>): number =>
    list.filter((t) => wordOf(t) === word).length;
  return {
    now: now().toISOString(),
    rate: clockRate(),
    schedules: [...groups.values()].map((list) => {
      const open = list.filter((t) => wordOf(t) === 'planned');
      return {
        id: list[0]!.scheduleId,
        name: list[0]!.schedule,
        planned: open.length,
        running: count(list, 'running'),
        done: count(list, 'done'),
        covered: count(list, 'covered'),
        couldNot: count(list, 'could not'),
        why: reasonsOf(list),
        from: (open[0] ?? list[0]!).runAt.toISOString(),
        to: (open.at(-1) ?? list.at(-1)!).runAt.toISOString(),
        /** Of those that are planned, by all audits like them. */
        takesMs: Math.round(
          open.reduce((sum, t) => sum + expectedMs(t.environmentId, parts.get(t.scheduleId) ?? null), 0) /
            AT_ONCE,
        ),
      };
    }),
    couldNot: all
      .filter((t) => wordOf(t) === 'could not')
      .slice(-NAMED)
      .map((turn) => ({
        siteId: turn.siteId,
        site: turn.site,
        environmentId: turn.environmentId,
        environment: turn.environment,
        schedule: turn.schedule,
        at: turn.runAt.toISOString(),
        why: reasonOf(turn),
      })),
  };
}
