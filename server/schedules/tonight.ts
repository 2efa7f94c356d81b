/** The night that is next or under way: what runs, how long that will take by the last runs, and what could not. */
import { QueryTypes } from 'sequelize';
import { clockRate, now } from '../platform/clock';
import { database } from '../platform/db/connection';

/** Of an environment that was never looked at in that way, in milliseconds. */
const USUAL_MS = 4000;
const AT_ONCE = 2;
const NAMED = 40;

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
  tookMs: number | null;
}

const BACK_HOURS = 14;
const AHEAD_HOURS = 24;

/** All turns from the last night on, until a day from now. */
function turns(): Promise<Turn[]> {
  const at = now().getTime();
  return database().query<Turn>(
    `SELECT p.schedule_id AS scheduleId, c.name AS schedule, p.state, a.status, a.error, p.reason, p.run_at AS runAt,
      s.id AS siteId, s.name AS site, e.id AS environmentId, e.name AS environment,
      (SELECT l.took_ms FROM planned_audit q JOIN audit l ON l.id = q.audit_id
        WHERE q.schedule_id = p.schedule_id AND q.environment_id = p.environment_id AND l.took_ms IS NOT NULL
        ORDER BY q.id DESC LIMIT 1) AS tookMs
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

export async function tonight() {
  const all = await turns();
  const groups = new Map<number, Turn[]>();
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
        from: (open[0] ?? list[0]!).runAt.toISOString(),
        to: (open.at(-1) ?? list.at(-1)!).runAt.toISOString(),
        /** Of those that are planned, by their last runs. */
        takesMs: Math.round(open.reduce((sum, t) => sum + (t.tookMs ?? USUAL_MS), 0) / AT_ONCE),
      };
    }),
    couldNot: all
      .filter((t) => wordOf(t) === 'could not')
      .slice(-NAMED)
      .map(({ siteId, site, environmentId, environment, schedule, reason, error, runAt, state, status }) => ({
        siteId,
        site,
        environmentId,
        environment,
        schedule,
        at: runAt.toISOString(),
        why: reason ?? error ?? (status === 'stopped' ? 'it was stopped' : state),
      })),
  };
}
