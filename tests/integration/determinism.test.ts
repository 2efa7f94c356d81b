/** The same network gives the same evidence but for times, whatever the order in which answers come in. */
import { resolve } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Evidence } from '#core/facts/evidence';
import type { Brief } from '#core/facts/brief';
import { collect } from '#probe/collect';
import { ExtractPool } from '#probe/extract-pool';
import { officialFacts, startPracticeNet, type PracticeNet } from '../../net/practice-net';
import { bundleExtractWorker } from '../../scripts/worker-bundles.mjs';
import { SITES, keyOf, preferredHost } from '../../net/sites';

const clock = () => new Date('2026-11-25T12:00:00Z');
let net: PracticeNet;
let pool: ExtractPool;
beforeAll(async () => {
  pool = new ExtractPool({
    workers: 1,
    file: await bundleExtractWorker(resolve('.test/determinism/extract-worker.mjs')),
  });
  net = await startPracticeNet({ planted: true, now: clock, jitter: () => Math.floor(Math.random() * 12) });
});
afterAll(async () => {
  await Promise.all([net.close(), pool.close()]);
});

/** Evidence without durations, and without the servers' own clocks. */
function timeless(evidence: Evidence): unknown {
  return JSON.parse(
    JSON.stringify(evidence, (key, value: unknown) =>
      key === 'timing' || key === 'ms'
        ? undefined
        : Array.isArray(value) && value[0] === 'Date'
          ? undefined
          : value,
    ),
  );
}
const look = (
  slug: string,
  place: 'live' | 'staging',
  more: Partial<Parameters<typeof collect>[0]> = {},
): Promise<Evidence> => {
  const s = SITES.find((x) => x.slug === slug)!;
  const { user, password } = keyOf(s);
  return collect({
    url: place === 'live' ? `https://${preferredHost(s)}/` : `https://${s.staging.host}${s.staging.path}`,
    kind: place === 'live' ? 'live' : 'before',
    brief: officialFacts(slug) as Brief,
    resolvers: [net.resolver],
    map: net.map,
    bootstrap: net.bootstrap,
    ca: [net.caPem],
    timeoutMs: 8000,
    retryPauseMs: 5,
    clock,
    ...(place === 'staging'
      ? { access: { kind: 'credentials', user, password, origins: [`https://${s.staging.host}`] } }
      : {}),
    ...more,
  });
};

describe('collecting twice', () => {
  it.each([
    ['planetarium', 'live'],
    ['ferries', 'live'],
    ['trams', 'live'],
    ['plots', 'live'],
    ['ropes', 'staging'],
    ['kites', 'staging'],
  ] as const)('%s, %s: the same', async (slug, place) => {
    const [one, two] = [await look(slug, place), await look(slug, place, { concurrency: 3 })];
    expect(one.startedAt).toBe('2026-11-25T12:00:00.000Z');
    expect(timeless(two)).toEqual(timeless(one));
  });
  it('a large site, cut at the page limit: the same pages, read here and in threads', async () => {
    const [one, two] = [
      await look('curlew', 'live', { maxPages: 150 }),
      await look('curlew', 'live', { maxPages: 150, concurrency: 12, extract: pool.extract }),
    ];
    expect(one.pages).toHaveLength(150);
    expect(two.pages.map((p) => p.url)).toEqual(one.pages.map((p) => p.url));
    expect(timeless(two)).toEqual(timeless(one));
  });
});

describe('access', () => {
  it('is used, and stands nowhere in the evidence, even where the site echoes it', async () => {
    const e = await look('puppets', 'staging');
    const { user, password } = keyOf(SITES.find((s) => s.slug === 'puppets')!);
    expect(e.pages.length).toBeGreaterThan(6);
    expect(e.target.wayIn).toBe('credentials');
    const text = JSON.stringify(e);
    for (const secret of [
      password,
      Buffer.from(`${user}:${password}`).toString('base64'),
      encodeURIComponent(password),
    ])
      expect(text).not.toContain(secret);
    // what a visitor without it gets is evidence too
    expect(e.hosts[0]!.https.hops.at(-1)!.status).toBe(401);
  });
  it('passes the holding page, and the pass is not kept', async () => {
    const e = await look('lifeboat', 'live');
    expect(e.bypass).toMatchObject({ title: expect.stringContaining('Lifeboat Loft – A museum') as string });
    expect(e.pages[0]!.facts!.text).toContain('Something is being built here');
    expect(JSON.stringify(e)).not.toContain('look-0335');
  });
});
