import type { Transaction } from 'sequelize';
import { database } from './connection';

/** Deadlock, and a lock that was waited for too long. */
const IN_THE_WAY = new Set([1213, 1205]);
const ATTEMPTS = 8;
const LONGEST_PAUSE_MS = 40;

/**
 * Does what writes more than one row: all of it or nothing. Gaps between rows are not locked (connection.ts), and it
 * is tried again when two get in each other's way, so `work` keeps nothing beside the database.
 * @param within a transaction that is open already, of which this becomes a part
 */
export async function inTransaction<R>(
  work: (transaction: Transaction) => Promise<R>,
  within?: Transaction,
): Promise<R> {
  if (within) return work(within);
  for (let attempt = 1; ; attempt++) {
    try {
      return await database().transaction(work);
    } catch (error) {
      const { errno = 0 } = (error as { original?: { errno?: number } }).original ?? {};
      if (attempt >= ATTEMPTS || !IN_THE_WAY.has(errno)) throw error;
      await new Promise((r) => setTimeout(r, Math.random() * LONGEST_PAUSE_MS * attempt));
    }
  }
}
