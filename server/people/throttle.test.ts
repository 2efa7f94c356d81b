import { describe, expect, it } from 'vitest';
import { HOURLY, Throttle, type Guesser, type Tallies } from './throttle';

/** As the database keeps them: forgotten a quarter of an hour after the last one. */
class Remembered implements Tallies {
  at = 0;
  private readonly known = new Map<string, { wrong: number; last: number }>();
  count(names: readonly string[]): Promise<number[]> {
    return Promise.resolve(
      names.map((name) => {
        const before = this.known.get(name);
        const wrong = before && this.at - before.last < 15 * 60_000 ? before.wrong : 0;
        this.known.set(name, { wrong: wrong + 1, last: this.at });
        return wrong;
      }),
    );
  }
  /** Of unknown browsers, within the last hour. */
  private guesses: { account: string; network: string; at: number }[] = [];
  admit(account: string, network: string): Promise<boolean> {
    const recent = this.guesses.filter((g) => g.account === account && this.at - g.at < 3_600_000);
    const own = recent.some((g) => g.network === network);
    if (recent.length >= HOURLY.all || (own && recent.length >= HOURLY.repeated))
      return Promise.resolve(false);
    this.guesses.push({ account, network, at: this.at });
    return Promise.resolve(true);
  }
  forget(account: string, network: string): Promise<void> {
    this.guesses = this.guesses.filter((g) => g.account !== account || g.network !== network);
    return Promise.resolve();
  }
  right([account = '', ...others]: readonly string[]): Promise<void> {
    this.known.delete(account);
    for (const name of others) this.known.get(name)!.wrong--;
    return Promise.resolve();
  }
}

/** A throttle whose waits are written down and pass on its own clock. */
function throttled() {
  const waits: number[] = [];
  const tallies = new Remembered();
  const throttle = new Throttle(tallies, (ms) => {
    waits.push(ms);
    tallies.at += ms;
    return Promise.resolve();
  });
  const guess = (isRight: boolean, from: Partial<Guesser> = {}) =>
    throttle.attempt({ account: 'a', address: '192.0.2.1', ...from }, () => Promise.resolve(isRight));
  return { guess, throttle, waits, tallies, pass: (ms: number) => (tallies.at += ms) };
}
const HOUR_MS = 3_600_000;

describe('guesses', () => {
  it('are slowed down', async () => {
    const { guess, waits } = throttled();
    for (let i = 0; i < 9; i++) expect(await guess(false)).toBe(false);
    expect(waits).toEqual([500, 1000, 2000, 4000, 8000]);
    expect(await guess(true)).toBe(true);
  });
  it('at one account do not slow down others at the same address', async () => {
    const { guess, waits } = throttled();
    for (let i = 0; i < 8; i++) await guess(false);
    const before = waits.length;
    await guess(true, { account: 'b' });
    expect(waits).toHaveLength(before);
  });
  it('are forgotten after a right one, and after a while', async () => {
    const { guess, waits, pass } = throttled();
    for (let i = 0; i < 6; i++) await guess(false);
    await guess(true);
    const before = waits.length;
    await guess(false);
    expect(waits).toHaveLength(before);
    for (let i = 0; i < 6; i++) await guess(false, { account: 'c' });
    pass(16 * 60_000);
    const later = waits.length;
    await guess(false, { account: 'c' });
    expect(waits).toHaveLength(later);
  });
  it('of 300 at once only a few are checked', async () => {
    const { throttle } = throttled();
    let checks = 0;
    let now = 0;
    let most = 0;
    const slow = async (): Promise<boolean> => {
      checks++;
      most = Math.max(most, ++now);
      await new Promise((r) => setImmediate(r));
      now--;
      return false;
    };
    const all = await Promise.allSettled(
      Array.from({ length: 300 }, (_, i) =>
        throttle.attempt({ account: 'a', address: `192.0.2.${i % 250}` }, slow),
      ),
    );
    expect([checks, most]).toEqual([HOURLY.all, 2]);
    expect(all.filter((r) => r.status === 'rejected')).toHaveLength(300 - HOURLY.all);
  });
});

describe('under attack from 50 addresses', () => {
  const attackers = Array.from({ length: 50 }, (_, i) => `198.51.100.${i}`);
  /** Each guesses as often as it is let, hour after hour. @returns when passwords were tried */
  async function attack(hours: number, { guess, tallies, pass }: ReturnType<typeof throttled>) {
    const tried: number[] = [];
    const until = tallies.at + hours * HOUR_MS;
    while (tallies.at < until) {
      for (const address of attackers)
        await guess(false, { address }).then(
          () => tried.push(tallies.at),
          () => undefined,
        );
      pass(60_000);
    }
    return tried;
  }
  it('they try no more than 60 passwords an hour together', async () => {
    const tried = await attack(5, throttled());
    const within = tried.map((at) => tried.filter((t) => t >= at && t < at + HOUR_MS).length);
    expect(Math.max(...within)).toBeLessThanOrEqual(60);
  });
  it('a browser that is known signs in at once, one that is not at its first try', async () => {
    const desk = throttled();
    await attack(3, desk);
    const { guess, waits } = desk;
    const before = waits.length;
    expect(await guess(true, { browser: 'known' })).toBe(true);
    expect(await guess(true, { address: '203.0.113.9' })).toBe(true);
    expect(waits).toHaveLength(before);
  });
  it('a known browser may be wrong too, and is slowed down by itself', async () => {
    const desk = throttled();
    await attack(1, desk);
    const { guess } = desk;
    for (let i = 0; i < 5; i++) expect(await guess(false, { browser: 'known' })).toBe(false);
    expect(await guess(true, { browser: 'known' })).toBe(true);
  });
  it('a known browser that guesses on is treated like any other', async () => {
    const { guess } = throttled();
    for (let i = 0; i < 10; i++) await guess(false, { browser: 'stolen' });
    for (let i = 0; i < 10; i++) await guess(false, { browser: 'stolen' });
    await expect(guess(false, { browser: 'stolen' })).rejects.toThrow(/Too many wrong passwords/);
  });
  it('one who fills all places of an address stands in nobody else’s way', async () => {
    const tallies = new Remembered();
    const throttle = new Throttle(tallies, () => new Promise(() => {}));
    const at = (address: string, isRight: boolean) =>
      throttle.attempt({ account: 'a', address }, () => Promise.resolve(isRight));
    for (let i = 0; i < 4; i++) await at('198.51.100.1', false);
    // those who wait never come to their turn, and the others are refused
    const held = Array.from({ length: 24 }, () => at('198.51.100.1', false).catch(() => 'refused'));
    expect(await Promise.all(held.slice(3))).toEqual(Array(21).fill('refused'));
    expect(await at('203.0.113.9', true)).toBe(true);
  });
});

describe('one network', () => {
  it('is an IPv4 address, or the /64 of an IPv6 address', async () => {
    const { guess } = throttled();
    for (let i = 0; i < 10; i++) await guess(false, { address: `2001:db8:1:2::${i}` });
    await expect(guess(false, { address: '2001:db8:1:2:ffff::1' })).rejects.toThrow(/Too many/);
    expect(await guess(true, { address: '2001:db8:1:3::1' })).toBe(true);
  });
});
