/**
 * Whole audits, from putting them down to what is kept: 200 practice sites by one, two and three workers, against a
 * bare loop of requests for the same addresses, and what of the processor's time is the database's.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import tls from 'node:tls';
import net from 'node:net';
import mariadb from 'mariadb';
import { Agent, fetch as ask } from 'undici';
import type { Chain, Evidence } from '#core/facts/evidence';
import { freePort } from '../../scripts/database.mjs';
import { DEMO_LOGIN, startStack, type Stack } from '../../scripts/stack.mjs';
import { readEvidence } from '../../server/platform/packed';

const FOLDER = '.test/bench-audits';
const SITES = 200;
const NAMED = 24;
const MOST_WORKERS = 3;
const GOAL = 1.5;
/** Audits at once in a worker, and requests at once to a host: as they are unless set. */
const AT_ONCE = 2;
const CONNECTIONS = 6;
const PAGES = '10';

type Query = <T>(sql: string) => Promise<T[]>;

async function connect({ database }: Stack): Promise<{ query: Query; end: () => Promise<void> }> {
  const { env } = database;
  const c = await mariadb.createConnection({
    host: '127.0.0.1',
    port: Number(env.ARMBAND_DB_PORT),
    user: env.ARMBAND_DB_USER,
    password: env.ARMBAND_DB_PASSWORD,
    database: env.ARMBAND_DB_NAME,
  });
  return { query: async <T>(sql: string) => (await c.query(sql)) as T[], end: () => c.end() };
}

async function signIn({ address }: Stack): Promise<string> {
  const answer = await fetch(`${address}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(DEMO_LOGIN),
  });
  return answer.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
}

async function startWorker(stack: Stack): Promise<ChildProcess> {
  const port = String(await freePort());
  const child = spawn(process.execPath, [resolve('.output/server/index.mjs')], {
    env: {
      PATH: process.env.PATH,
      NODE_ENV: 'production',
      ...stack.settings,
      PORT: port,
      ARMBAND_ROLE: 'worker',
      ARMBAND_WORKERS: String(AT_ONCE),
    },
    stdio: 'ignore',
  });
  const healthy = (): Promise<boolean> =>
    fetch(`http://127.0.0.1:${port}/api/health`).then(
      (a) => a.ok,
      () => false,
    );
  while (!(await healthy())) await new Promise((r) => setTimeout(r, 50));
  return child;
}

/** Seconds of processor time that a process has used (proc(5), fields 14 and 15, in hundredths). */
function cpuSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

interface Round {
  seconds: number;
  /** The database's part of the processor's time of workers and database. */
  share: number;
}

/** All are audited once, by these workers. */
async function auditAll(stack: Stack, query: Query, children: readonly ChildProcess[]): Promise<Round> {
  const cookie = await signIn(stack);
  const ids = (
    await query<{ id: number }>(
      `SELECT e.id FROM environment e JOIN site s ON s.id = e.site_id WHERE e.kind = 'live' ORDER BY e.id LIMIT ${SITES}`,
    )
  ).map((e) => e.id);
  const { pid } = stack.database.child;
  const before = cpuSeconds(pid!);
  const own = children.map((c) => cpuSeconds(c.pid!));
  const start = performance.now();
  await fetch(`${stack.address}/api/audits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie },
    body: JSON.stringify({ environmentIds: ids }),
  });
  const left = async (): Promise<number> =>
    Number(
      (await query<{ n: bigint }>('SELECT COUNT(*) AS n FROM audit WHERE running_key IS NOT NULL'))[0]!.n,
    );
  while (await left()) await new Promise((r) => setTimeout(r, 100));
  const seconds = (performance.now() - start) / 1000;
  const database = cpuSeconds(pid!) - before;
  const theirs = children.reduce((sum, c, i) => sum + cpuSeconds(c.pid!) - own[i]!, 0);
  return { seconds, share: database / (database + theirs) };
}

async function endWorkers(children: readonly ChildProcess[]): Promise<void> {
  for (const child of children) {
    const gone = once(child, 'exit');
    child.kill();
    await gone;
  }
}

/** Every address that an audit asked for over HTTP. */
function addressesOf(evidence: Evidence): string[] {
  const chains: Chain[] = [
    ...evidence.hosts.flatMap((h) => [h.http, h.https, h.httpPath, h.httpsPath]),
    evidence.robots.chain,
    ...evidence.sitemaps.map((s) => s.chain),
    ...evidence.pages.map((p) => p.chain),
    ...evidence.assets.flatMap((a) => ('chain' in a ? [a.chain] : [])),
    ...evidence.links.map((l) => l.chain),
    ...evidence.paths.map((p) => p.chain),
    ...evidence.tokenFiles.map((p) => p.chain),
    ...evidence.variants.flatMap((v) => ('chain' in v ? [v.chain] : [])),
    ...(evidence.notFound ? [evidence.notFound] : []),
  ];
  return chains.flatMap((c) => c.hops.filter((h) => h.status !== undefined).map((h) => h.url));
}

/** The same addresses, asked in a bare loop: as many sites and requests at once, nothing read but the bytes. */
async function bareLoop(stack: Stack, sites: readonly string[][]): Promise<number> {
  const { ports } = JSON.parse(readFileSync(resolve(FOLDER, 'net', 'net.json'), 'utf8')) as {
    ports: { http: number; https: number };
  };
  const agentOf = (): Agent =>
    new Agent({
      connections: CONNECTIONS,
      connect: ({ protocol, hostname }, callback) => {
        const isSecure = protocol === 'https:';
        const socket = isSecure
          ? tls.connect({
              host: '127.0.0.1',
              port: ports.https,
              servername: hostname,
              rejectUnauthorized: false,
            })
          : net.connect(ports.http, '127.0.0.1');
        socket.once(isSecure ? 'secureConnect' : 'connect', () => callback(null, socket));
        socket.once('error', (error) => callback(error, null));
      },
    });
  const start = performance.now();
  const queue = [...sites];
  const one = async (): Promise<void> => {
    for (let addresses = queue.pop(); addresses; addresses = queue.pop()) {
      const dispatcher = agentOf();
      const list = [...addresses];
      const fetchSome = async (): Promise<void> => {
        for (let url = list.pop(); url; url = list.pop()) {
          const answer = await ask(url, { dispatcher, redirect: 'manual' }).catch(() => null);
          await answer?.arrayBuffer().catch(() => null);
        }
      };
      await Promise.all(Array.from({ length: CONNECTIONS }, fetchSome));
      await dispatcher.close();
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  return (performance.now() - start) / 1000;
}

/** @returns whether the goal was met */
export async function benchWholeAudits(): Promise<boolean> {
  rmSync(FOLDER, { recursive: true, force: true });
  process.env.ARMBAND_PRACTICE_MORE = String(SITES - NAMED);
  const stack = await startStack({ folder: FOLDER, env: { ARMBAND_WORKERS: '0', ARMBAND_PAGES: PAGES } });
  delete process.env.ARMBAND_PRACTICE_MORE;
  const { query, end } = await connect(stack);
  try {
    // the demo's own first audits are not what is measured
    await query("UPDATE job SET state = 'stopped'");
    await query("UPDATE audit SET status = 'stopped', running_key = NULL");
    // once to warm up, as workers are that go on for weeks, and for the addresses
    const workers = [await startWorker(stack)];
    await auditAll(stack, query, workers);
    const rows = await query<{ data: Buffer }>(
      'SELECT v.data FROM audit_evidence v JOIN environment e ON e.last_audit_id = v.audit_id',
    );
    const sites = await Promise.all(rows.map(async ({ data }) => addressesOf(await readEvidence(data))));
    const requests = sites.reduce((sum, s) => sum + s.length, 0);
    process.stderr.write(`  ${sites.length} sites, ${requests} requests\n`);
    const one: Round[] = [];
    const bare: number[] = [];
    for (let i = 0; i < 3; i++) {
      bare.push(await bareLoop(stack, sites));
      one.push(await auditAll(stack, query, workers));
    }
    const middle = (list: number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1]!;
    const alone = middle(one.map((r) => r.seconds));
    const ratio = alone / middle(bare);
    const share = middle(one.map((r) => r.share));
    process.stdout.write(
      `whole audits of ${sites.length} sites: ratio ${ratio.toFixed(2)} against a bare loop, goal <= ${GOAL} (${alone.toFixed(1)} s against ${middle(bare).toFixed(1)} s)\n` +
        `whole audits: the database has ${Math.round(100 * share)} % of the processor\u2019s time\n`,
    );
    while (workers.length < MOST_WORKERS) {
      workers.push(await startWorker(stack));
      const { seconds } = await auditAll(stack, query, workers);
      process.stdout.write(
        `whole audits: ${workers.length} workers ${seconds.toFixed(1)} s, ${(alone / seconds).toFixed(2)} times as fast as one\n`,
      );
    }
    await endWorkers(workers);
    return ratio <= GOAL;
  } finally {
    await end();
    await stack.stop();
    rmSync(FOLDER, { recursive: true, force: true });
  }
}

if (process.argv[1]?.endsWith('whole-audits.ts')) await benchWholeAudits();
