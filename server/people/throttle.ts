/**
 * Guesses at passwords are counted before they are checked, for each account and each address, and slowed down
 * the more there are. Nobody is locked out: whoever knows the password gets in after a wait.
 */
import { TooMany } from '../platform/errors';

/** Guesses so far, kept where all processes see them. */
export interface Tallies {
  /** Counts a guess for each name. @returns how many wrong ones there were before it */
  count(names: readonly string[]): Promise<number[]>;
  /** The guess was right: the first name's are forgotten, the others' are one less. */
  right(names: readonly string[]): Promise<void>;
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
/** Passwords that are checked at once: hashing takes memory and a thread each. */
const MOST_CHECKS = 4;

export class Throttle {
  /** How many wait, by name, in this process. */
  private readonly waiting = new Map<string, number>();
  private checking = 0;

  constructor(
    private readonly tallies: Tallies,
    private readonly wait: (ms: number) => Promise<void> = (ms) => new Promise((r) => setTimeout(r, ms)),
  ) {}

  private add(name: string, by: 1 | -1): void {
    const now = (this.waiting.get(name) ?? 0) + by;
    if (now) this.waiting.set(name, now);
    else this.waiting.delete(name);
  }

  /**
   * Does one check of a password when its turn has come.
   * @param account the name that was given; @param address where the guess comes from
   * @param check whether the password is the right one
   * @throws TooMany where too many guesses wait already
   */
  async attempt(account: string, address: string, check: () => Promise<boolean>): Promise<boolean> {
    const held: [name: string, bounds: Bounds][] = [
      [`account ${account}`, ACCOUNT],
      [`address ${address}`, ADDRESS],
    ];
    const names = held.map(([name]) => name);
    if (
      this.checking >= MOST_CHECKS * 5 ||
      held.some(([name, { atOnce }]) => (this.waiting.get(name) ?? 0) >= atOnce)
    )
      throw new TooMany('Too many attempts at once. Wait a moment and try again.');
    for (const name of names) this.add(name, 1);
    this.checking++;
    try {
      const wrong = await this.tallies.count(names);
      const waits = held.map(([, { free }], i) =>
        wrong[i]! < free ? 0 : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrong[i]! - free)),
      );
      const longest = Math.max(...waits);
      if (longest) await this.wait(longest);
      const isRight = await check();
      if (isRight) await this.tallies.right(names);
      return isRight;
    } finally {
      this.checking--;
      for (const name of names) this.add(name, -1);
    }
  }
}
