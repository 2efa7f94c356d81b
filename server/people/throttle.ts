/**
 * Guesses at passwords are counted before they are checked, for each account and each address, and slowed down
 * the more there are. Nobody is locked out: whoever knows the password gets in after a wait.
 */
import { TooMany } from '../platform/errors';

interface Tally {
  wrong: number;
  waiting: number;
  last: number;
}

/** How many guesses are free, how many may wait at once, and the longest wait. */
interface Bounds {
  free: number;
  atOnce: number;
}
const ACCOUNT: Bounds = { free: 4, atOnce: 3 };
/** An office may share one address. */
const ADDRESS: Bounds = { free: 20, atOnce: 10 };
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 20_000;
/** After so long without a wrong guess all is forgotten. */
const MEMORY_MS = 15 * 60_000;
const MOST_KEYS = 20_000;
/** Passwords that are checked at once: hashing takes memory and a thread each. */
const MOST_CHECKS = 4;

export class Throttle {
  private readonly tallies = new Map<string, Tally>();
  private checking = 0;

  constructor(
    private readonly now: () => number = Date.now,
    private readonly wait: (ms: number) => Promise<void> = (ms) => new Promise((r) => setTimeout(r, ms)),
  ) {}

  private tally(key: string): Tally {
    const known = this.tallies.get(key);
    if (known && (known.waiting > 0 || this.now() - known.last < MEMORY_MS)) return known;
    if (this.tallies.size >= MOST_KEYS) this.forget();
    const fresh: Tally = { wrong: 0, waiting: 0, last: this.now() };
    this.tallies.set(key, fresh);
    return fresh;
  }

  /** Drops what is old; where that is not enough, the oldest half. */
  private forget(): void {
    const old = [...this.tallies].filter(([, t]) => t.waiting === 0).sort((a, b) => a[1].last - b[1].last);
    for (const [key, t] of old)
      if (this.tallies.size > MOST_KEYS / 2 || this.now() - t.last > MEMORY_MS) this.tallies.delete(key);
  }

  /**
   * Does one check of a password when its turn has come.
   * @param account the name that was given; @param address where the guess comes from
   * @param check whether the password is the right one
   * @throws TooMany where too many guesses wait already
   */
  async attempt(account: string, address: string, check: () => Promise<boolean>): Promise<boolean> {
    const held: [Tally, Bounds][] = [
      [this.tally(`account ${account}`), ACCOUNT],
      [this.tally(`address ${address}`), ADDRESS],
    ];
    if (this.checking >= MOST_CHECKS * 5 || held.some(([t, { atOnce }]) => t.waiting >= atOnce))
      throw new TooMany('Too many attempts at once. Wait a moment and try again.');
    const waits = held.map(([t, { free }]) =>
      t.wrong < free ? 0 : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (t.wrong - free)),
    );
    for (const [t] of held) {
      t.waiting++;
      t.wrong++;
      t.last = this.now();
    }
    this.checking++;
    try {
      const longest = Math.max(...waits);
      if (longest) await this.wait(longest);
      const isRight = await check();
      if (isRight) {
        held[0]![0].wrong = 0;
        held[1]![0].wrong--;
      }
      return isRight;
    } finally {
      this.checking--;
      for (const [t] of held) t.waiting--;
    }
  }
}
