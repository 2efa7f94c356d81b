/**
 * Jobs as rows. Everything that two may want at once is one statement or one short transaction, by the database's
 * own time: the clock of whoever works does not matter.
 */
import { QueryTypes, type Transaction } from 'sequelize';
import { database } from '#server/platform/db/connection';
import { inTransaction } from '#server/platform/db/transaction';
import type { Lane, Progress } from './definition';
import type { Offered } from './delivery';

export type JobState = 'waiting' | 'running' | 'done' | 'stopped' | 'failed';

export interface JobRow {
  id: number;
  name: string;
  lane: Lane;
  priority: number;
  title: string;
  startedBy: string;
  payload: string;
  state: JobState;
  total: number;
  done: number;
  failed: number;
  progress: string | null;
  claims: number;
  attempts: number;
  losses: number;
  stopAsked: number;
  error: string | null;
  result: string | null;
}

const COLUMNS = `id, name, lane, priority, title, started_by AS startedBy, payload, state, total, done, failed, progress,
  claims, attempts, losses, stop_asked AS stopAsked, error, result`;

async function select<T extends object>(sql: string, values: unknown[] = [], transaction?: Transaction) {
  return database().query<T>(sql, { type: QueryTypes.SELECT, replacements: values, transaction });
}

/** @returns how many rows changed */
async function change(sql: string, values: unknown[] = [], transaction?: Transaction): Promise<number> {
  const [, count] = await database().query(sql, {
    type: QueryTypes.UPDATE,
    replacements: values,
    transaction,
  });
  return count;
}

/** Whoever has a job, by the number of the time it was taken up. */
export interface Claim {
  id: number;
  claims: number;
  worker: string;
}
const MINE = "id = ? AND claims = ? AND worker = ? AND state = 'running'";
const mine = ({ id, claims, worker }: Claim): unknown[] => [id, claims, worker];

export interface NewJob {
  name: string;
  lane: Lane;
  priority: number;
  title: string;
  startedBy: string;
  payload: object;
  total: number;
  /** At most one with this key is not ended. */
  onlyKey?: string;
}

const TITLE = 200;

/** @returns its number; null where one with the same key has not ended */
export async function insertJob(job: NewJob, transaction?: Transaction): Promise<number | null> {
  const [id, count] = (await database().query(
    `INSERT IGNORE INTO job (name, lane, priority, title, started_by, payload, total, only_key, state, run_after, created_at)
      VALUES (?, ?, ?, ?, ?, ?, ?, ?, 'waiting', NOW(3), NOW(3))`,
    {
      type: QueryTypes.INSERT,
      replacements: [
        job.name,
        job.lane,
        job.priority,
        job.title.slice(0, TITLE),
        job.startedBy,
        JSON.stringify(job.payload),
        job.total,
        job.onlyKey ?? null,
      ],
      transaction,
    },
  )) as unknown as [number, number];
  return count ? Number(id) : null;
}

/**
 * Takes up whichever of the lane's jobs comes next of those that may begin.
 * @param leaseMs how long it stays with this worker unless that is renewed
 */
export function claimNext(lane: Lane, worker: string, leaseMs: number): Promise<JobRow | undefined> {
  return inTransaction(async (transaction) => {
    const [next] = await select<JobRow>(
      `SELECT ${COLUMNS} FROM job WHERE state = 'waiting' AND lane = ? AND run_after <= NOW(3)
        ORDER BY priority, id LIMIT 1 FOR UPDATE SKIP LOCKED`,
      [lane],
      transaction,
    );
    if (!next) return undefined;
    await change(
      `UPDATE job SET state = 'running', worker = ?, claims = claims + 1, started_at = COALESCE(started_at, NOW(3)),
        lease_until = NOW(3) + INTERVAL ? MICROSECOND WHERE id = ?`,
      [worker, leaseMs * 1000, next.id],
      transaction,
    );
    return { ...next, state: 'running' as const, claims: next.claims + 1 };
  });
}

/** Keeps all jobs of a worker with it, and says which those are. */
export async function renewLeases(
  worker: string,
  leaseMs: number,
): Promise<(Claim & { stopAsked: number })[]> {
  await change(
    "UPDATE job SET lease_until = NOW(3) + INTERVAL ? MICROSECOND WHERE worker = ? AND state = 'running'",
    [leaseMs * 1000, worker],
  );
  return select(
    "SELECT id, claims, worker, stop_asked AS stopAsked FROM job WHERE worker = ? AND state = 'running'",
    [worker],
  );
}

export interface JobProgress {
  done: number;
  failed: number;
  progress?: Progress;
}

export async function saveProgress(of: Claim, { done, failed, progress }: JobProgress): Promise<void> {
  await change(`UPDATE job SET done = ?, failed = ?, progress = ? WHERE ${MINE}`, [
    done,
    failed,
    progress ? JSON.stringify(progress) : null,
    ...mine(of),
  ]);
}

/** @returns whether it is still this worker's until the transaction ends */
export async function ownsLease(of: Claim, transaction: Transaction): Promise<boolean> {
  return (await select(`SELECT id FROM job WHERE ${MINE} FOR UPDATE`, mine(of), transaction)).length > 0;
}

/** @returns whether it was this worker's to end */
export async function finishJob(
  of: Claim,
  how: 'done' | 'stopped' | 'failed',
  { result, error }: { result?: object; error?: object } = {},
  transaction?: Transaction,
): Promise<boolean> {
  const count = await change(
    `UPDATE job SET state = ?, result = ?, error = COALESCE(?, error), only_key = NULL, lease_until = NULL,
      payload = '{}', ended_at = NOW(3) WHERE ${MINE}`,
    [how, result ? JSON.stringify(result) : null, error ? JSON.stringify(error) : null, ...mine(of)],
    transaction,
  );
  return count > 0;
}

/** Puts it back: it is tried again, after a while where it failed. */
export async function requeue(
  of: Claim,
  { attempts, delayMs, error }: { attempts: number; delayMs: number; error?: object },
): Promise<boolean> {
  const count = await change(
    `UPDATE job SET state = 'waiting', worker = NULL, lease_until = NULL, attempts = ?,
      run_after = NOW(3) + INTERVAL ? MICROSECOND, error = COALESCE(?, error) WHERE ${MINE}`,
    [attempts, delayMs * 1000, error ? JSON.stringify(error) : null, ...mine(of)],
  );
  return count > 0;
}

/**
 * Ends a job that waits.
 * @param tidy what belongs to it, in the same transaction
 * @returns whether it did wait
 */
export function finishWaiting(
  id: number,
  how: 'stopped' | 'failed',
  error: object | undefined,
  tidy: (job: JobRow, transaction: Transaction) => Promise<void>,
): Promise<boolean> {
  return inTransaction(async (transaction) => {
    const [job] = await select<JobRow>(
      `SELECT ${COLUMNS} FROM job WHERE id = ? AND state = 'waiting' FOR UPDATE`,
      [id],
      transaction,
    );
    if (!job) return false;
    await tidy(job, transaction);
    await change(
      `UPDATE job SET state = ?, error = COALESCE(?, error), only_key = NULL, payload = '{}', ended_at = NOW(3)
        WHERE id = ?`,
      [how, error ? JSON.stringify(error) : null, id],
      transaction,
    );
    return true;
  });
}

export const requestStop = (id: number): Promise<number> =>
  change("UPDATE job SET stop_asked = 1 WHERE id = ? AND state = 'running'", [id]);

export async function jobRow(id: number): Promise<JobRow | undefined> {
  return (await select<JobRow>(`SELECT ${COLUMNS} FROM job WHERE id = ?`, [id]))[0];
}

/** Jobs whose worker is silent wait again; a stop that was asked for is granted. @returns those that were lost */
export function requeueExpired(): Promise<JobRow[]> {
  return inTransaction(async (transaction) => {
    const lost = await select<JobRow>(
      `SELECT ${COLUMNS} FROM job WHERE state = 'running' AND lease_until < NOW(3) ORDER BY id LIMIT 200
        FOR UPDATE SKIP LOCKED`,
      [],
      transaction,
    );
    if (lost.length)
      await change(
        `UPDATE job SET state = 'waiting', worker = NULL, lease_until = NULL, losses = losses + 1, run_after = NOW(3)
          WHERE id IN (${lost.map(() => '?').join(', ')})`,
        lost.map((j) => j.id),
        transaction,
      );
    return lost.map((j) => ({ ...j, losses: j.losses + 1 }));
  });
}

/** More need not be on their way at once. */
export const OFFERED_AT_ONCE = 5000;

/** What waits, as it is offered: all of a lane, or these. */
export function offers({ lane, ids }: { lane?: Lane; ids?: readonly number[] }): Promise<Offered[]> {
  const which = [
    ...(lane ? ['AND lane = ?'] : []),
    ...(ids ? [`AND id IN (${ids.map(() => '?').join(', ')})`] : []),
  ].join(' ');
  return select<Offered>(
    `SELECT id, lane, claims, GREATEST(0, TIMESTAMPDIFF(MICROSECOND, NOW(3), run_after) DIV 1000) AS delayMs
      FROM job WHERE state = 'waiting' ${which} ORDER BY priority, id LIMIT ${OFFERED_AT_ONCE}`,
    [...(lane ? [lane] : []), ...(ids ?? [])],
  );
}

export async function countWaiting(where: { lane?: Lane; name?: string } = {}): Promise<number> {
  const given = Object.entries(where);
  const [row] = await select<{ count: number }>(
    `SELECT COUNT(*) AS count FROM job WHERE state = 'waiting' ${given.map(([column]) => `AND ${column} = ?`).join(' ')}`,
    given.map(([, value]) => value),
  );
  return Number(row!.count);
}

/** What is under way, without what it was given. */
export function runningRows(limit: number): Promise<JobRow[]> {
  return select<JobRow>(
    `SELECT ${COLUMNS.replace('payload', "'' AS payload")} FROM job WHERE state = 'running' ORDER BY id LIMIT ?`,
    [limit],
  );
}

export async function finishedItems(jobId: number): Promise<{ item: number; error: string | null }[]> {
  return select('SELECT item, error FROM job_item WHERE job_id = ?', [jobId]);
}

const ERROR = 600;

/** Once for each item: what is there already stays. */
export async function saveItem(
  jobId: number,
  item: number,
  { data, error }: { data?: object; error?: string },
): Promise<void> {
  await change('INSERT IGNORE INTO job_item (job_id, item, error, data) VALUES (?, ?, ?, ?)', [
    jobId,
    item,
    error?.slice(0, ERROR) ?? null,
    data ? JSON.stringify(data) : null,
  ]);
}

export async function itemResults<R>(jobId: number): Promise<R[]> {
  const rows = await select<{ data: string }>(
    'SELECT data FROM job_item WHERE job_id = ? AND data IS NOT NULL ORDER BY item',
    [jobId],
  );
  return rows.map((r) => JSON.parse(r.data) as R);
}

const KEPT_HOURS = 24;

/** What ended long ago is forgotten. */
export async function deleteFinished(): Promise<void> {
  await change(`DELETE FROM job WHERE ended_at < NOW(3) - INTERVAL ${KEPT_HOURS} HOUR LIMIT 5000`);
}
