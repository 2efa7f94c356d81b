/** Probing two hundred hosts with everything recorded, against bare loops over the same addresses. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { resolve } from 'node:path';
import { Agent, fetch as bareFetch, request } from 'undici';
import { Dialer } from '#probe/dialer';
import { ExtractPool } from '#probe/extract-pool';
import { HttpClient } from '#probe/http/client';
import { TrustStore } from '#probe/tls';
import type { Chain } from '#core/facts/evidence';
import { bundleExtractWorker } from '../../scripts/worker-bundles.mjs';
import { HOSTS, PAGES } from './many-hosts';
import { ratio } from './ratio';

const AT_ONCE = 8,
  CONNECTIONS = 6;

/** Runs a job for each host, some hosts at once. */
async function overHosts(work: (host: string) => Promise<void>): Promise<void> {
  let next = 0;
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      while (next < HOSTS.length) await work(HOSTS[next++]!);
    }),
  );
}
const addresses = (host: string): string[] => Array.from({ length: PAGES }, (_, n) => `http://${host}/p${n}`);
/** All addresses of one host, as many at once as there are connections. */
async function eachOf(urls: string[], work: (url: string) => Promise<unknown>): Promise<void> {
  let next = 0;
  await Promise.all(
    Array.from({ length: CONNECTIONS }, async () => {
      while (next < urls.length) await work(urls[next++]!);
    }),
  );
}

export async function benchProbing(): Promise<boolean> {
  const child = spawn(process.execPath, ['--import', 'tsx/esm', 'tests/bench/many-hosts.ts'], {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    env: { ...process.env, TSX_TSCONFIG_PATH: 'tsconfig.scripts.json' },
  });
  const port = await new Promise<string>((done, reject) => {
    child.stdout!.once('data', (d) => done(String(d).trim()));
    child.once('exit', () => reject(new Error('the server of the bench did not start')));
  });
  const map = HOSTS.map((h) => `${h}=127.0.0.1:${port}`);
  const store = new TrustStore();
  const pool = new ExtractPool({
    file: await bundleExtractWorker(resolve('.test/bench/extract-worker.mjs')),
  });
  try {
    const probe = (extract: boolean) =>
      overHosts(async (host) => {
        const client = new HttpClient(new Dialer({ map }), store, {
          agent: 'bench',
          timeoutMs: 10_000,
          maxBytes: 10_000_000,
          maxRedirects: 10,
          connections: CONNECTIONS,
          retryPauseMs: 1,
        });
        const kept: { chain: Chain; sha256: string; facts?: unknown }[] = [];
        await eachOf(addresses(host), async (url) => {
          const { chain, body } = await client.followTwice(url);
          kept.push({
            chain,
            sha256: createHash('sha256').update(body!).digest('hex'),
            ...(extract ? { facts: await pool.extract(body!, 'text/html; charset=utf-8', url) } : {}),
          });
        });
        if (kept.length !== PAGES || kept.some((k) => k.chain.end !== 'answer'))
          throw new Error('not every page was read');
        await client.close();
      });
    const agentOf = (): Agent => {
      const dialer = new Dialer({ map });
      return new Agent({
        connections: CONNECTIONS,
        connect: (o, done) => {
          void dialer.connect(o.hostname, 80).then(
            ({ socket }) => done(null, socket),
            (e: unknown) => done(e as Error, null),
          );
        },
      });
    };
    const fetched = () =>
      overHosts(async (host) => {
        const agent = agentOf();
        await eachOf(addresses(host), async (url) =>
          (await bareFetch(url, { dispatcher: agent })).arrayBuffer(),
        );
        await agent.close();
      });
    // a bare request undoes no content coding, so it is undone beside it
    const requested = () =>
      overHosts(async (host) => {
        const agent = agentOf();
        await eachOf(addresses(host), async (url) => {
          const { body } = await request(url, { dispatcher: agent });
          const { gunzip } = await import('node:zlib');
          const bytes = Buffer.from(await body.arrayBuffer());
          await new Promise((done, no) =>
            gunzip(bytes, (e, out) => {
              if (e) no(e);
              else done(out);
            }),
          );
        });
        await agent.close();
      });
    // once, before the rounds that are timed: what one probing of them all takes
    await probe(true);
    const peak = Math.round(process.resourceUsage().maxRSS / 1024);
    process.stdout.write(
      `peak memory of probing 200 hosts x 10 pages with extraction: ${peak} MB, goal < 400 MB\n`,
    );
    let good = peak < 400;
    good =
      (await ratio(
        'probing 200 hosts x 10 pages against a bare fetch loop',
        1.0,
        () => probe(false),
        fetched,
        7,
      )) && good;
    good =
      (await ratio('the same against a bare undici request loop', 1.4, () => probe(false), requested, 7)) &&
      good;
    good =
      (await ratio(
        'the same with extraction in threads against a bare fetch loop',
        2.2,
        () => probe(true),
        fetched,
        5,
      )) && good;
    return good;
  } finally {
    await pool.close();
    child.kill('SIGTERM');
  }
}
