import { ConnectionRefusedError, ValidationError } from 'sequelize';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { isDatabaseDown, retryWhileDatabaseDown } from './reachable';

const away = (): Error => new ConnectionRefusedError(new Error('connect ECONNREFUSED'));
beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

describe('a database that is away', () => {
  it.each([
    ['refused', away(), true],
    [
      'lost in the middle',
      Object.assign(new Error('x'), { original: { code: 'ER_SOCKET_UNEXPECTED_CLOSE' } }),
      true,
    ],
    ['a value that does not fit', new ValidationError('too long', []), false],
    ['a fault of our own', new TypeError('socket is undefined'), false],
  ])('%s', (_, error, expected) => {
    expect(isDatabaseDown(error)).toBe(expected);
  });

  it('is asked again until it answers', async () => {
    let times = 0;
    const kept = retryWhileDatabaseDown(() =>
      ++times < 4 ? Promise.reject(away()) : Promise.resolve('kept'),
    );
    await vi.runAllTimersAsync();
    expect(await kept).toBe('kept');
    expect(times).toBe(4);
  });

  it('is given up after a while', async () => {
    const lost = expect(retryWhileDatabaseDown(() => Promise.reject(away()))).rejects.toThrow('ECONNREFUSED');
    await vi.runAllTimersAsync();
    await lost;
  });

  it('other faults are not tried again', async () => {
    let times = 0;
    const work = (): Promise<never> => {
      times++;
      return Promise.reject(new Error('no'));
    };
    await expect(retryWhileDatabaseDown(work)).rejects.toThrow('no');
    expect(times).toBe(1);
  });
});
