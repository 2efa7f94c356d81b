/** Jobs straight from MariaDB: whoever has time asks what comes next. */
import type { Lane } from './definition';
import type { Delivery, Offered, RunNext } from './delivery';

/** What other processes put down is found so soon. */
const LOOK_MS = 400;

/** Takes one after the other, and waits where there is none. */
class Server {
  private timer: NodeJS.Timeout | undefined;
  private sleepers: (() => void)[] = [];
  private stopped = false;
  private readonly over: Promise<unknown>;

  constructor(
    readonly lane: Lane,
    atOnce: number,
    private readonly runNext: RunNext,
  ) {
    this.over = Promise.all(Array.from({ length: atOnce }, () => this.serve()));
  }

  private sleep(): Promise<void> {
    this.timer ??= setTimeout(() => this.wake(), LOOK_MS);
    return new Promise((resolve) => this.sleepers.push(resolve));
  }

  wake(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    for (const go of this.sleepers.splice(0)) go();
  }

  private async serve(): Promise<void> {
    while (!this.stopped) {
      const took = await this.runNext(this.lane).catch((error: unknown) => {
        console.error(`no work could be taken up: ${(error as Error).message}`);
        return false;
      });
      if (!took && !this.stopped) await this.sleep();
    }
  }

  async stop(): Promise<void> {
    this.stopped = true;
    this.wake();
    await this.over;
  }
}

export class EmbeddedDelivery implements Delivery {
  private readonly servers = new Set<Server>();

  offer(jobs: readonly Offered[]): Promise<void> {
    const lanes = new Set(jobs.map((j) => j.lane));
    for (const server of this.servers) if (lanes.has(server.lane)) server.wake();
    return Promise.resolve();
  }

  serve(lane: Lane, atOnce: number, runNext: RunNext): Promise<() => Promise<void>> {
    const server = new Server(lane, atOnce, runNext);
    this.servers.add(server);
    return Promise.resolve(async () => {
      this.servers.delete(server);
      await server.stop();
    });
  }

  waiting(): Promise<undefined> {
    return Promise.resolve(undefined);
  }

  close(): Promise<void> {
    return Promise.resolve();
  }
}
