/**
 * Requests at once to one host, over all processes: permits are rows, each with the process that has them. A process
 * keeps its permits only while it asks, so that nobody waits for who waits.
 */
import { QueryTypes, type Transaction } from 'sequelize';
import type { HostGate } from '#probe/http/host-gate';
import { database } from '#server/platform/db/connection';
import { retryWhileDatabaseDown } from '#server/platform/db/reachable';
import { inTransaction } from '#server/platform/db/transaction';

export interface PermitOptions {
  /** The process. */
  holder: string;
  /** Requests at once to one host. */
  limit: number;
  /** Least time between the starts of two requests to one host, in milliseconds. */
  delayMs: number;
}

/** How long permits are kept after the last request, since the next one often follows at once. */
const LINGER_MS = 250;
/** Where all permits are taken, it is asked again so often. */
const AGAIN_MS = 100;
const LEASE_SECONDS = 20;
const RENEW_MS = 5000;

interface Host {
  permits: number;
  inside: number;
  /** Those that wait, in their order. */
  queue: Waiting[];
  asking: boolean;
  /** When the next request may begin. */
  next: number;
  linger?: NodeJS.Timeout;
  /** Under way: its permits are being given back. */
  releasing?: Promise<void>;
}

interface Waiting {
  go: () => void;
  fail: (error: Error) => void;
}

export class HostPermits implements HostGate {
  private readonly hosts = new Map<string, Host>();
  private renewing: NodeJS.Timeout | undefined;

  constructor(private readonly options: PermitOptions) {}

  async enter(name: string, signal?: AbortSignal): Promise<() => void> {
    const host = this.of(name);
    clearTimeout(host.linger);
    host.linger = undefined;
    signal?.throwIfAborted();
    if (host.inside >= host.permits || host.queue.length) await this.wait(name, host, signal);
    else host.inside++;
    await this.pause(host);
    return () => this.leave(name, host);
  }

  /** Gives all back. */
  async close(): Promise<void> {
    clearTimeout(this.renewing);
    for (const host of this.hosts.values()) clearTimeout(host.linger);
    this.hosts.clear();
    await run('DELETE FROM host_permit WHERE holder = ?', [this.options.holder]);
  }

  private of(name: string): Host {
    let host = this.hosts.get(name);
    if (!host) {
      host = { permits: 0, inside: 0, queue: [], asking: false, next: 0 };
      this.hosts.set(name, host);
    }
    return host;
  }

  private wait(name: string, host: Host, signal?: AbortSignal): Promise<void> {
    return new Promise((resolve, reject) => {
      const end = (): void => signal?.removeEventListener('abort', leave);
      const waiting: Waiting = {
        go: () => {
          end();
          resolve();
        },
        fail: (error) => {
          end();
          reject(error);
        },
      };
      const leave = (): void => {
        const at = host.queue.indexOf(waiting);
        if (at >= 0) host.queue.splice(at, 1);
        reject(signal!.reason as Error);
      };
      signal?.addEventListener('abort', leave, { once: true });
      host.queue.push(waiting);
      if (host.permits < this.options.limit) void this.ask(name, host);
    });
  }

  /** Lets in as many as there are permits for. */
  private admit(host: Host): void {
    while (host.inside < host.permits && host.queue.length) {
      host.inside++;
      host.queue.shift()!.go();
    }
  }

  /** Asks for as many permits as there is use for, until there is one. */
  private async ask(name: string, host: Host): Promise<void> {
    if (host.asking) return;
    host.asking = true;
    try {
      await host.releasing;
      while (host.queue.length && host.permits < this.options.limit) {
        const wanted = Math.min(this.options.limit, host.inside + host.queue.length);
        const got = await retryWhileDatabaseDown(() => this.take(name, wanted));
        if (got > host.permits) {
          host.permits = got;
          this.admit(host);
        } else if (host.permits) return;
        else await new Promise((r) => setTimeout(r, AGAIN_MS));
      }
    } catch (error) {
      for (const waiting of host.queue.splice(0)) waiting.fail(error as Error);
    } finally {
      host.asking = false;
      if (!host.inside && !host.queue.length) this.rest(name, host);
    }
  }

  /** @returns how many this process has by now */
  private take(name: string, wanted: number): Promise<number> {
    const { holder, limit, delayMs } = this.options;
    this.keepRenewing();
    return inTransaction(async (transaction) => {
      await run('INSERT IGNORE INTO host_gate (host) VALUES (?)', [name], transaction);
      await select('SELECT host FROM host_gate WHERE host = ? FOR UPDATE', [name], transaction);
      const [others] = await select<{ taken: number }>(
        `SELECT COALESCE(SUM(permits), 0) AS taken FROM host_permit
          WHERE host = ? AND holder <> ? AND lease_until > NOW(3)`,
        [name, holder],
        transaction,
      );
      const taken = Number(others!.taken);
      // a distance in time can only be kept by one
      const got = delayMs && taken ? 0 : Math.min(wanted, limit - taken);
      if (got > 0)
        await run(
          `INSERT INTO host_permit (host, holder, permits, lease_until)
            VALUES (?, ?, ?, NOW(3) + INTERVAL ${LEASE_SECONDS} SECOND)
            ON DUPLICATE KEY UPDATE permits = VALUES(permits), lease_until = VALUES(lease_until)`,
          [name, holder, got],
          transaction,
        );
      return Math.max(0, got);
    });
  }

  private async pause(host: Host): Promise<void> {
    const { delayMs } = this.options;
    if (!delayMs) return;
    const now = performance.now();
    const start = Math.max(now, host.next);
    host.next = start + delayMs;
    if (start > now) await new Promise((r) => setTimeout(r, start - now));
  }

  private leave(name: string, host: Host): void {
    host.inside--;
    this.admit(host);
    if (!host.inside && !host.queue.length) this.rest(name, host);
  }

  private rest(name: string, host: Host): void {
    clearTimeout(host.linger);
    host.linger = setTimeout(
      () => {
        if (host.inside || host.queue.length || host.asking) return;
        host.permits = 0;
        host.releasing = run('DELETE FROM host_permit WHERE host = ? AND holder = ?', [
          name,
          this.options.holder,
        ])
          // where that fails, its lease ends
          .catch(() => undefined)
          .finally(() => {
            host.releasing = undefined;
            if (!host.inside && !host.queue.length && !host.asking) this.hosts.delete(name);
          });
      },
      Math.max(LINGER_MS, this.options.delayMs),
    );
  }

  private keepRenewing(): void {
    this.renewing ??= setTimeout(() => {
      this.renewing = undefined;
      if (!this.hosts.size) return;
      this.keepRenewing();
      void run(
        `UPDATE host_permit SET lease_until = NOW(3) + INTERVAL ${LEASE_SECONDS} SECOND WHERE holder = ?`,
        [this.options.holder],
      ).catch(() => undefined);
    }, RENEW_MS).unref();
  }
}

async function run(sql: string, replacements: unknown[], transaction?: Transaction): Promise<void> {
  await database().query(sql, { replacements, transaction });
}

function select<T extends object>(
  sql: string,
  replacements: unknown[],
  transaction: Transaction,
): Promise<T[]> {
  return database().query<T>(sql, { type: QueryTypes.SELECT, replacements, transaction });
}
