/**
 * The one clock that all processes ask. It is the database's own, so that a machine whose clock is off changes
 * nothing; in the demo it can run fast.
 */
import { QueryTypes } from 'sequelize';
import { database } from '#server/platform/db/connection';
import { announce, onChange } from './events';

/** What the clock shows, from the moment on at which it was set. */
interface Setting {
  /** Milliseconds of the database's own time at which it was set. */
  realAt: number;
  /** What it showed then. */
  shownAt: number;
  /** How much faster than real time it runs. */
  rate: number;
}

let setting: Setting = { realAt: 0, shownAt: 0, rate: 1 };
/** The database's time less this process's, in milliseconds. */
let ahead = 0;

/** Asks the database how late it is, and how the clock is set. */
export async function readClock(): Promise<void> {
  const before = Date.now();
  const [row] = await database().query<{
    now: Date;
    realAt: Date | null;
    shownAt: Date | null;
    rate: number | null;
  }>(
    `SELECT NOW(3) AS now, c.real_at AS realAt, c.shown_at AS shownAt, c.rate
      FROM (SELECT 1) one LEFT JOIN clock c ON c.id = 1`,
    { type: QueryTypes.SELECT },
  );
  const after = Date.now();
  ahead = row!.now.getTime() - (before + after) / 2;
  setting =
    row!.realAt && row!.shownAt
      ? { realAt: row!.realAt.getTime(), shownAt: row!.shownAt.getTime(), rate: row!.rate ?? 1 }
      : { realAt: 0, shownAt: 0, rate: 1 };
}

/** The database's own time in milliseconds, however the clock is set: for sessions and what keeps people out. */
export const realNow = (): number => Date.now() + ahead;

/** What time it is, for all that is judged, planned and told. */
export function now(): Date {
  return new Date(setting.shownAt + (realNow() - setting.realAt) * setting.rate);
}

/** How much faster than real time it runs. */
export const clockRate = (): number => setting.rate;
/** The day it is, in UTC. */
export const today = (): string => now().toISOString().slice(0, 10);

/** Sets how fast it runs from now on; what it shows does not jump. For the demo. */
export async function setClockRate(rate: number): Promise<void> {
  await readClock();
  const shown = now();
  await database().query(
    `INSERT INTO clock (id, real_at, shown_at, rate) VALUES (1, NOW(3), ?, ?)
      ON DUPLICATE KEY UPDATE real_at = VALUES(real_at), shown_at = VALUES(shown_at), rate = VALUES(rate)`,
    { replacements: [shown, rate] },
  );
  await readClock();
  announce('ClockChanged', {});
}

const AGAIN_MS = 2000;

/** Asks again and again, since another process may set it. @returns how to end that */
export function syncClock(): () => void {
  const ask = (): void => void readClock().catch(() => undefined);
  const timer = setInterval(ask, AGAIN_MS);
  timer.unref();
  const stop = onChange(({ name, fromElsewhere }) => {
    if (fromElsewhere && name === 'ClockChanged') ask();
  });
  return () => {
    clearInterval(timer);
    stop();
  };
}
