/**
 * What changes in one process is told to the screens of all: it passes through a table, and whoever has screens
 * looks there.
 */
import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { database } from '#server/platform/db/connection';
import { isDue } from './due';
import { onChange, tellAll, type Change } from './events';

const ME = randomUUID();
/** What happens together is written together. */
const TOGETHER_MS = 50;
const LOOK_MS = 400;
/** So far back it is looked: what was begun earlier may be seen later. */
const BACK_SECONDS = 5;

let pending: Change[] = [];
let timer: NodeJS.Timeout | undefined;

async function write(): Promise<void> {
  timer = undefined;
  const changes = pending;
  pending = [];
  try {
    await database().query('INSERT INTO change_event (origin, changes, at) VALUES (?, ?, NOW(3))', {
      replacements: [ME, JSON.stringify(changes)],
    });
    if (await isDue('forget changes', 60))
      await database().query('DELETE FROM change_event WHERE at < NOW(3) - INTERVAL 1 MINUTE');
  } catch (error) {
    // screens elsewhere ask anew when their stream begins again
    console.error(`a change was not passed on: ${(error as Error).message}`);
  }
}

/** Tells other processes what is announced in this one. @returns how to end that */
export function publishChanges(): () => Promise<void> {
  const stop = onChange((change) => {
    if (change.fromElsewhere) return;
    pending.push(change);
    timer ??= setTimeout(() => void write(), TOGETHER_MS);
  });
  return async () => {
    stop();
    if (!timer) return;
    clearTimeout(timer);
    await write();
  };
}

const seen = new Set<number>();
let looking: NodeJS.Timeout | undefined;
let isFirst = true;

async function look(): Promise<void> {
  const rows = await database().query<{ id: number; changes: string }>(
    `SELECT id, changes FROM change_event WHERE at > NOW(3) - INTERVAL ${BACK_SECONDS} SECOND AND origin <> ? ORDER BY id`,
    { type: QueryTypes.SELECT, replacements: [ME] },
  );
  const fresh = rows.filter((r) => !seen.has(r.id));
  seen.clear();
  for (const { id } of rows) seen.add(id);
  // what was told before anybody looked is seen already
  const changes = isFirst ? [] : fresh.flatMap((r) => JSON.parse(r.changes) as Change[]);
  isFirst = false;
  for (const change of changes) tellAll({ ...change, fromElsewhere: true });
}

/** Looks for what other processes told, while somebody listens. */
export function pollOtherProcesses(): void {
  if (looking) return;
  isFirst = true;
  const again = (): void => {
    looking = setTimeout(() => {
      void look()
        .catch(() => undefined)
        .finally(() => {
          if (looking) again();
        });
    }, LOOK_MS);
  };
  again();
}

export function stopPolling(): void {
  clearTimeout(looking);
  looking = undefined;
}
