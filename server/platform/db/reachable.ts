/** Work that waits for a database which is away for a while. */
import { ConnectionError } from 'sequelize';

/** What the connector says when the server is not there, or went away in the middle. */
const AWAY =
  /ECONNREFUSED|ECONNRESET|EPIPE|ER_SOCKET|ER_CONNECTION|server has gone away|Connection (?:lost|is closed)|socket|pool/i;
const LONGEST_MS = 10 * 60_000;

/** Whether an error means that the database was not there. */
export function isDatabaseDown(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  const { message = '', original } = (error ?? {}) as {
    message?: string;
    original?: { code?: string };
  };
  return AWAY.test(original?.code ?? '') || (original !== undefined && AWAY.test(message));
}

/**
 * Tries again while the database is away, for ten minutes at most.
 * @param signal ends the waiting
 */
export async function retryWhileDatabaseDown<R>(work: () => Promise<R>, signal?: AbortSignal): Promise<R> {
  const end = Date.now() + LONGEST_MS;
  for (let pause = 500; ; pause = Math.min(pause * 2, 10_000)) {
    try {
      return await work();
    } catch (error) {
      if (!isDatabaseDown(error) || signal?.aborted || Date.now() + pause > end) throw error;
      await new Promise((r) => setTimeout(r, pause));
    }
  }
}
