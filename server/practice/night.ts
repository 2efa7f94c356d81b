/** A night in two minutes, to see in the demo what schedules do while nobody looks. */
import { now } from '#server/platform/clock';
import { NotFound } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { planAhead, builtInSchedules } from '#server/schedules';
import { practiceControl, setPracticeRate, switchFault } from './practice';

/** Twelve hours in two minutes. */
const RATE = 360;
/** What goes wrong that night: the faults stand in the practice net's list, where each can be mended. */
const GOES_WRONG = [
  { site: 'puppets', environment: 'live', fault: 'noindex-left' },
  { site: 'bees', environment: 'live', fault: 'ends-soon' },
  { site: 'chess', environment: 'live', fault: 'ends-soon' },
] as const;
const HOUR_MS = 3_600_000;

const zoned = (ms: number): string => new Date(ms).toISOString().slice(11, 16);

/** Plants the night's faults, lets the schedules begin within the next hour, and makes the clock run. */
export async function beginNight(by: string): Promise<void> {
  if (!practiceControl()) throw new NotFound('The practice net is only there in the demo.');
  for (const fault of GOES_WRONG) await switchFault({ ...fault, on: true });
  const at = now().getTime();
  const rows = await builtInSchedules();
  // one after the other, so that what the first finds is not what the others look for
  for (const [i, row] of rows.entries())
    await row.update({
      isOn: true,
      every: 'day',
      timeZone: 'UTC',
      fromTime: zoned(at + (1 + 3 * i) * HOUR_MS),
      toTime: zoned(at + (3 + 3 * i) * HOUR_MS),
      createdBy: by,
    });
  await setPracticeRate(RATE);
  await planAhead();
  announce('SchedulesChanged', {});
}

/** The real time again; what was planned by the fast clock is planned anew. */
export async function endNight(): Promise<void> {
  await setPracticeRate(1);
  announce('SchedulesChanged', {});
}
