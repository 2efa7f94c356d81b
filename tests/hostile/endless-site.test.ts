/** Sites that would have an audit go on for ever, or keep more than a machine has: each ends within its bounds. */
import { spawn, type ChildProcess } from 'node:child_process';
import { afterEach, describe, expect, it } from 'vitest';
import { collect, type CollectOptions } from '#probe/collect';
import type { Evidence } from '#core/facts/evidence';

let child: ChildProcess | undefined;
afterEach(() => {
  child?.kill();
});
/** The hostile site of a kind. */
async function hostile(kind: string): Promise<string> {
  child = spawn(process.execPath, ['tests/hostile-site.mjs', kind], {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  const port = await new Promise<string>((resolve) => {
    child!.stdout!.once('data', (d) => resolve(String(d).trim()));
  });
  return `http://127.0.0.1:${port}/`;
}
const look = (url: string, more: Partial<CollectOptions> = {}): Promise<Evidence> =>
  collect({ url, kind: 'before', allowPrivate: true, retryPauseMs: 10, maxPages: 1, ...more });
const sizeOf = (e: Evidence): number => JSON.stringify(e).length;

describe('within its bounds', () => {
  it('220 sitemaps of 50,000 addresses: 100,000 are kept, the rest is counted and said', async () => {
    const e = await look(await hostile('sitemaps'));
    const kept = e.sitemaps.reduce((sum, m) => sum + (m.facts?.urls.length ?? 0), 0);
    const counted = e.sitemaps.reduce((sum, m) => sum + (m.facts?.count ?? 0), 0);
    expect(kept).toBe(100_000);
    expect(counted).toBeGreaterThan(1_000_000);
    expect(e.sitemaps.length).toBeLessThan(60);
    expect(e.notes.join(' ')).toContain('of them are kept');
  });
  it('icons and style sheets that cost time', async () => {
    const started = performance.now();
    const e = await look(await hostile('files'));
    expect(e.assets.length).toBeGreaterThan(10);
    expect(performance.now() - started).toBeLessThan(30_000);
  });
  it('1,000 links by ten redirects by 56 kB of headers', async () => {
    const e = await look(await hostile('links'));
    expect(e.links).toHaveLength(1000);
    expect(sizeOf(e)).toBeLessThan(12_000_000);
    expect(e.links[0]!.chain.hops).toHaveLength(10);
  });
  it('a site that drips ends with the audit’s time, and says so', async () => {
    const started = performance.now();
    const e = await look(await hostile('slow'), { auditSeconds: 2, timeoutMs: 60_000 });
    expect(performance.now() - started).toBeLessThan(15_000);
    expect(e.notes.join(' ')).toContain('time for one audit was over');
    expect(e.sitemaps[0]!.chain.error).toMatchObject({ code: 'stopped' });
  });
  it('stopping ends it at once', async () => {
    const stop = new AbortController();
    const url = await hostile('slow');
    setTimeout(() => stop.abort(), 500);
    const started = performance.now();
    await expect(look(url, { timeoutMs: 60_000, signal: stop.signal })).rejects.toThrow('stopped');
    expect(performance.now() - started).toBeLessThan(5000);
  });
});

describe('access that cannot be sent', () => {
  it.each(['schlüssel', 'abcd\r\nx-more: 1', 'ab'])(
    '%j is refused before anything is asked',
    async (value) => {
      const access = { kind: 'cookie' as const, name: 'key', value, origins: ['http://127.0.0.1:9'] };
      await expect(look('http://127.0.0.1:9/', { access })).rejects.toThrow(RangeError);
    },
  );
});

describe('where it may lead', () => {
  it.each([
    ['another port', 'http://192.0.2.1:8080/', /port 8080/],
    ['a platform’s own address', 'http://168.63.129.16/', /platform/],
  ])('%s', async (_, url, words) => {
    const e = await collect({ url: 'http://127.0.0.1:9/', kind: 'before', asked: undefined, maxPages: 1 });
    expect(e.pages[0]!.chain.error?.code).toBe('forbidden-address');
    const { Dialer } = await import('#probe/dialer');
    const dialer = new Dialer({ ports: [80, 443] });
    const { hostname, port } = new URL(url);
    await expect(dialer.connect(hostname, Number(port || 80))).rejects.toThrow(words);
  });
});
