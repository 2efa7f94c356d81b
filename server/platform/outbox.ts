/** Deliveries of committed events: rows that are handled and removed in one transaction. */
import { QueryTypes, type Transaction } from 'sequelize';
import type { DomainEvents, EventName } from '#core/facts/domain-events';
import { database } from './db/connection';

export interface Delivery {
  subscriber: string;
  name: EventName;
  data: DomainEvents[EventName];
}
interface DeliveryRow {
  id: number;
  subscriber: string;
  name: EventName;
  data: string;
  attempts: number;
}

/** How often deliveries of other processes and failed ones are looked for. */
const LOOK_MS = 1000;
const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 5 * 60_000;

let wake: (() => void) | undefined;

/** Stores deliveries in the transaction of their event. */
export async function addDeliveries(list: readonly Delivery[], transaction: Transaction): Promise<void> {
  if (!list.length) return;
  await database().query(
    `INSERT INTO event_delivery (subscriber, name, data, run_after) VALUES ${list.map(() => '(?, ?, ?, NOW(3))').join(', ')}`,
    {
      replacements: list.flatMap(({ subscriber, name, data }) => [subscriber, name, JSON.stringify(data)]),
      transaction,
    },
  );
  transaction.afterCommit(() => wake?.());
}

/** Who handles deliveries in this process. */
export interface Recipients {
  /** Their names. Deliveries for others wait for a process that knows them, such as one of a newer version. */
  names(): string[];
  handle(delivery: Delivery, transaction: Transaction): Promise<void>;
}

/**
 * Handles the oldest delivery that no other process is handling.
 * @returns whether there was one
 */
export async function deliverOne({ names, handle }: Recipients): Promise<boolean> {
  const known = names();
  if (!known.length) return false;
  let failed: { row: DeliveryRow; error: Error } | undefined;
  const found = await database()
    .transaction(async (transaction) => {
      const [row] = await database().query<DeliveryRow>(
        `SELECT id, subscriber, name, data, attempts FROM event_delivery
          WHERE run_after <= NOW(3) AND subscriber IN (:known) ORDER BY id LIMIT 1 FOR UPDATE SKIP LOCKED`,
        { type: QueryTypes.SELECT, replacements: { known }, transaction },
      );
      if (!row) return false;
      try {
        const { subscriber, name } = row;
        await handle({ subscriber, name, data: JSON.parse(row.data) as Delivery['data'] }, transaction);
      } catch (error) {
        failed = { row, error: error as Error };
        throw error;
      }
      await database().query('DELETE FROM event_delivery WHERE id = ?', {
        replacements: [row.id],
        transaction,
      });
      return true;
    })
    .catch((error: unknown) => {
      if (!failed) throw error;
      return true;
    });
  if (failed) await putOff(failed.row, failed.error);
  return found;
}

/** Tries a failed delivery again later, each time after a longer pause. */
async function putOff({ id, subscriber, name, attempts }: DeliveryRow, error: Error): Promise<void> {
  console.error(`${subscriber} could not handle ${name}: ${error.message}`);
  const pause = Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** Math.min(attempts, 20));
  await database().query(
    'UPDATE event_delivery SET attempts = attempts + 1, run_after = NOW(3) + INTERVAL ? MICROSECOND WHERE id = ?',
    { replacements: [pause * 1000, id] },
  );
}

/** Handles deliveries one after the other. @returns stops this, after the current delivery */
export function startDelivering(recipients: Recipients): () => Promise<void> {
  let isEnding = false;
  const loop = async (): Promise<void> => {
    while (!isEnding) {
      const next = new Promise<void>((resolve) => {
        wake = resolve;
      });
      let timer: NodeJS.Timeout | undefined;
      // while the database is down, it is asked again like one without deliveries
      if (!(await deliverOne(recipients).catch(() => false)) && !isEnding)
        await Promise.race([
          next,
          new Promise<void>((resolve) => {
            timer = setTimeout(resolve, LOOK_MS);
            timer.unref();
          }),
        ]);
      clearTimeout(timer);
    }
  };
  const done = loop();
  return async () => {
    isEnding = true;
    wake?.();
    await done;
  };
}
