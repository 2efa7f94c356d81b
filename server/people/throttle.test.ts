import { describe, expect, it } from 'vitest';
import { Throttle, type Tallies } from './throttle';

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
  right([account = '', ...others]: readonly string[]): Promise<void> {
    this.known.delete(account);
    for (const name of others) this.known.get(name)!.wrong--;
    return Promise.resolve();
  }
}

/** A throttle whose waits are written down and take no time. */
function throttled() {
  const waits: number[] = [];
  const tallies = new Remembered();
  const throttle = new Throttle(tallies, (ms) => {
    waits.push(ms);
    return Promise.resolve();
  });
  const guess = (isRight: boolean, account = 'a', address = '192.0.2.1') =>
    throttle.attempt(account, address, () => Promise.resolve(isRight));
  return { guess, throttle, waits, pass: (ms: number) => (tallies.at += ms) };
}

describe('guesses', () => {
  it('are slowed down, and never locked out', async () => {
    const { guess, waits } = throttled();
    for (let i = 0; i < 12; i++) expect(await guess(false)).toBe(false);
    expect(waits).toEqual([500, 1000, 2000, 4000, 8000, 16_000, 20_000, 20_000]);
    expect(await guess(true)).toBe(true);
  });
  it('at one account do not slow down others at the same address', async () => {
    const { guess, waits } = throttled();
    for (let i = 0; i < 8; i++) await guess(false);
    const before = waits.length;
    await guess(true, 'b');
    expect(waits).toHaveLength(before);
  });
  it('are forgotten after a right one, and after a while', async () => {
    const { guess, waits, pass } = throttled();
    for (let i = 0; i < 6; i++) await guess(false);
    await guess(true);
    const before = waits.length;
    await guess(false);
    expect(waits).toHaveLength(before);
    for (let i = 0; i < 6; i++) await guess(false, 'c');
    pass(16 * 60_000);
    const later = waits.length;
    await guess(false, 'c');
    expect(waits).toHaveLength(later);
  });
  it('of 300 at once only a few are checked', async () => {
    const { throttle } = throttled();
    let checks = 0;
    const slow = async (): Promise<boolean> => {
      checks++;
      await new Promise((r) => setImmediate(r));
      return false;
    };
    const all = await Promise.allSettled(
      Array.from({ length: 300 }, (_, i) => throttle.attempt('a', `192.0.2.${i % 250}`, slow)),
    );
    expect(checks).toBe(3);
    expect(all.filter((r) => r.status === 'rejected')).toHaveLength(297);
  });
});
