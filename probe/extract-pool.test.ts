/** Threads that read pages: the same facts, no page lost, none that hangs the others. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { ExtractPool } from './extract-pool';
import type { PoolOptions } from './work-pool';
import { extractHere } from './extractor';
import { bundleExtractWorker } from '../scripts/worker-bundles.mjs';

const pools: ExtractPool[] = [];
afterEach(async () => {
  await Promise.all(pools.splice(0).map((p) => p.close()));
});
let file: string;
beforeAll(async () => {
  file = await bundleExtractWorker(join(mkdtempSync(join(tmpdir(), 'armband-thread-')), 'thread.mjs'));
});
const pool = (options: Partial<PoolOptions> = {}) => {
  const p = new ExtractPool({ file, workers: 1, ...options });
  pools.push(p);
  return p;
};
const page = (n: number, size = 6000) =>
  Buffer.from(`<!doctype html><html lang="en"><title>Page ${n}</title><p>${'word '.repeat(size / 5)}`);
const url = (n: number) => `https://a.example/${n}`;

describe('the pool', () => {
  it('gives what reading here gives, in whatever order', async () => {
    const { extract } = pool({ workers: 2 });
    const all = await Promise.all(
      Array.from({ length: 12 }, (_, n) => extract(page(n), 'text/html; charset=utf-8', url(n))),
    );
    expect(all).toEqual(
      Array.from(
        { length: 12 },
        (_, n) =>
          JSON.parse(JSON.stringify(extractHere(page(n), 'text/html; charset=utf-8', url(n)))) as unknown,
      ),
    );
  });
  it('small pages are read on the spot', () => {
    expect(pool().extract(Buffer.from('<title>x</title>'), undefined, url(0))).not.toBeInstanceOf(Promise);
  });
  it('a page that takes too long ends its thread, and the next are read by another', async () => {
    const { extract } = pool({ timeoutMs: 1 });
    await expect(extract(page(1, 3_000_000), 'text/html', url(1))).rejects.toThrow('too long');
    const patient = pool({ timeoutMs: 20_000 });
    expect((await patient.extract(page(2), 'text/html', url(2))).facts.titles[0]!.text).toBe('Page 2');
  });
  it('once closed it refuses, what waits too', async () => {
    const p = pool();
    const waiting = [1, 2, 3].map((n) =>
      Promise.resolve(p.extract(page(n), 'text/html', url(n))).then(
        () => 'read',
        () => 'refused',
      ),
    );
    await p.close();
    expect(await waiting.at(-1)).toBe('refused');
    await expect(Promise.resolve(p.extract(page(4), 'text/html', url(4)))).rejects.toThrow('have ended');
  });
});
