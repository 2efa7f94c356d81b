/**
 * Guesses at passwords are counted before they are checked, and slowed down the more there are. A browser that has
 * signed in to the account before has places of its own, so that no stranger stands in its way; all others share a
 * limit for each account, which holds however many addresses a stranger has.
 */
import PQueue from 'p-queue';
import { TooMany } from '#server/platform/errors';
import { networkOf } from '#server/platform/http/client-address';

/** Guesses so far, kept where all processes see them. */
export interface Tallies {
  /** Counts a guess for each name. @returns how many wrong ones there were before it */
  count(names: readonly string[]): Promise<number[]>;
  /** The guess was right: the first name's are forgotten, the others' are one less. */
  right(names: readonly string[]): Promise<void>;
  /**
   * Notes a guess by a browser that the account does not know, unless it is over the limits.
   * @returns whether it may be checked
   */
  admit(account: string, network: string): Promise<boolean>;
  /** The guess was right: those of this network at this account are forgotten. */
  forget(account: string, network: string): Promise<void>;
}

/** Within an hour, of unknown browsers at one account. */
export const HOURLY = {
  /** Altogether, from wherever they come. */
  all: 60,
  /** So many before only networks are taken that have not guessed yet. */
  repeated: 10,
} as const;

/** How many guesses are free, and how many may wait at once. */
interface Bounds {
  free: number;
  atOnce: number;
}
const BROWSER: Bounds = { free: 4, atOnce: 3 };
const ACCOUNT_FROM: Bounds = { free: 4, atOnce: 3 };
/** An office may share one address. */
const ADDRESS: Bounds = { free: 20, atOnce: 10 };
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 20_000;
/** A known browser that guesses on is treated like an unknown one. */
const MOST_OF_BROWSER = 10;
/** Passwords that are checked at once: hashing takes memory and a thread each, of the four that there are. */
const MOST_CHECKS = 2;
const MOST_WAITING = 1000;
const FIRST_OF_ALL = 1_000_000;

const AT_ONCE = 'Too many attempts at once. Wait a moment and try again.';
const FROM_ELSEWHERE =
  'Too many wrong passwords were tried here within an hour. Use a browser that has signed in before, ask an owner for a password link, or try again in an hour.';

/** Whose guess it is. */
export interface Guesser {
  /** The name that was given, or what stands for it. */
  account: string;
  address: string;
  /** The browser, where it has signed in to this account before. */
  browser?: string;
}

export class Throttle {
  /** How many wait, by name, in this process. */
  private readonly waiting = new Map<string, number>();
  private readonly checks = new PQueue({ concurrency: MOST_CHECKS });
  private unknown = 0;

  constructor(
    private readonly tallies: Tallies,
    private readonly wait: (ms: number) => Promise<void> = (ms) => new Promise((r) => setTimeout(r, ms)),
  ) {}

  /**
   * Does one check of a password when its turn has come.
   * @param check whether the password is the right one
   * @throws TooMany where too many guesses wait already, or too many were wrong
   */
  attempt(guesser: Guesser, check: () => Promise<boolean>): Promise<boolean> {
    const { account, address, browser } = guesser;
    const network = networkOf(address);
    if (browser !== undefined)
      return this.inPlaces([[`browser ${browser} ${account}`, BROWSER]], async (names, [wrong = 0]) => {
        if (wrong >= MOST_OF_BROWSER) return this.attempt({ account, address }, check);
        return this.checked(names, FIRST_OF_ALL, check);
      });
    if (this.unknown >= MOST_WAITING) return Promise.reject(new TooMany(AT_ONCE));
    this.unknown++;
    const places: [string, Bounds][] = [
      [`account ${account} from ${network}`, ACCOUNT_FROM],
      [`address ${network}`, ADDRESS],
    ];
    return this.inPlaces(places, async (names, [, ofAddress = 0]) => {
      if (!(await this.tallies.admit(account, network))) throw new TooMany(FROM_ELSEWHERE);
      const isRight = await this.checked(names, -ofAddress, check);
      if (isRight) await this.tallies.forget(account, network);
      return isRight;
    }).finally(() => this.unknown--);
  }

  /** Takes a place for each name, waits as long as there were wrong guesses, and goes on. */
  private async inPlaces(
    places: readonly [name: string, bounds: Bounds][],
    goOn: (names: string[], wrong: number[]) => Promise<boolean>,
  ): Promise<boolean> {
    if (places.some(([name, { atOnce }]) => (this.waiting.get(name) ?? 0) >= atOnce))
      throw new TooMany(AT_ONCE);
    const names = places.map(([name]) => name);
    for (const name of names) this.add(name, 1);
    try {
      const wrong = await this.tallies.count(names);
      const waits = places.map(([, { free }], i) =>
        wrong[i]! < free ? 0 : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrong[i]! - free)),
      );
      const longest = Math.max(...waits);
      if (longest) await this.wait(longest);
      return await goOn(names, wrong);
    } finally {
      for (const name of names) this.add(name, -1);
    }
  }

  /** Those who were wrong least often come first. */
  private async checked(
    names: readonly string[],
    priority: number,
    check: () => Promise<boolean>,
  ): Promise<boolean> {
    const isRight = await this.checks.add(check, { priority });
    if (isRight) await this.tallies.right(names);
    return isRight === true;
  }

  private add(name: string, by: 1 | -1): void {
    const now = (this.waiting.get(name) ?? 0) + by;
    if (now) this.waiting.set(name, now);
    else this.waiting.delete(name);
  }
}
