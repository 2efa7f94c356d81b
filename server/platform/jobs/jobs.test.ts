import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { jobById, startJob, stopJob } from './jobs';

beforeEach(() => {
  vi.spyOn(console, 'error').mockImplementation(() => {});
});
afterEach(() => {
  vi.restoreAllMocks();
});
const ended = (id: string) => vi.waitFor(() => expect(jobById(id).status).not.toBe('running'));

describe('long work', () => {
  it('goes on where one item fails, counts it, and says why', async () => {
    const { id } = startJob('Doubling', 'Mara', [1, 2, 3], (n) =>
      n === 2 ? Promise.reject(new Error('two is odd today')) : Promise.resolve(n * 2),
    );
    await ended(id);
    expect(jobById(id)).toMatchObject({
      status: 'done',
      done: 3,
      failed: 1,
      error: 'two is odd today',
      results: [2, 6],
    });
  });

  it('ends between two items when it is stopped', async () => {
    const { id } = startJob(
      'Counting',
      'Mara',
      [1, 2, 3],
      async (n) => {
        await Promise.resolve();
        stopJob(id);
        return n;
      },
      1,
    );
    await ended(id);
    expect(jobById(id)).toMatchObject({ status: 'stopped', done: 1 });
  });

  it('of nothing is done', async () => {
    const { id } = startJob('Nothing', 'Mara', [], () => Promise.resolve(1));
    await ended(id);
    expect(jobById(id)).toMatchObject({ status: 'done', total: 0 });
  });
});
