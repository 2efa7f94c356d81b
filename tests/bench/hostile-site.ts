/**
 * A site that means harm: how long the thread that serves people stands still, and how much memory is used. Read
 * as the server reads, in threads of its own; the site is served by another process.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { collect } from '#probe/collect';
import { ExtractPool } from '#probe/extract-pool';
import { bundleExtractWorker } from '../../scripts/worker-bundles.mjs';

const KINDS = ['sitemaps', 'files', 'links'] as const;
const GOALS = { pauseMs: 100, memoryMb: 600 };

/** @returns whether both goals were met */
export async function benchHostileSite(): Promise<boolean> {
  const child = spawn(process.execPath, ['--import', 'tsx/esm', 'tests/bench/hostile-site.ts'], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, TSX_TSCONFIG_PATH: 'tsconfig.scripts.json' },
  });
  let out = '';
  child.stdout.on('data', (d) => {
    out += String(d);
  });
  await new Promise((done) => child.once('exit', done));
  const { pauses, peak } = JSON.parse(out) as { pauses: Record<string, number>; peak: number };
  const longest = Math.max(...Object.values(pauses));
  const each = Object.entries(pauses)
    .map(([kind, ms]) => `${kind} ${ms} ms`)
    .join(', ');
  process.stdout.write(
    `hostile site: longest pause of the server's own thread: ${longest} ms, goal <= ${GOALS.pauseMs} ms (${each})\nhostile site: peak memory: ${peak} MB, goal < ${GOALS.memoryMb} MB\n`,
  );
  return longest <= GOALS.pauseMs && peak < GOALS.memoryMb;
}

async function hostile(kind: string): Promise<{ child: ChildProcess; url: string }> {
  const child = spawn(process.execPath, ['tests/hostile-site.mjs', kind], {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  const port = await new Promise<string>((resolve) => {
    child.stdout!.once('data', (d) => resolve(String(d).trim()));
  });
  return { child, url: `http://127.0.0.1:${port}/` };
}

if (process.argv[1]?.endsWith('hostile-site.ts')) {
  const file = await bundleExtractWorker(join('.test', 'bench-extract-worker.mjs'));
  const pool = new ExtractPool({ file });
  const pauses: Record<string, number> = {};
  for (const kind of KINDS) {
    const { child, url } = await hostile(kind);
    const delay = monitorEventLoopDelay({ resolution: 5 });
    delay.enable();
    await collect({
      url,
      kind: 'before',
      allowPrivate: true,
      retryPauseMs: 1,
      extract: pool.extract,
      readFile: pool.readFile,
    });
    delay.disable();
    pauses[kind] = Math.round(delay.max / 1e6);
    child.kill();
  }
  await pool.close();
  rmSync(file, { force: true });
  const peak = Math.round(process.resourceUsage().maxRSS / 1024);
  process.stdout.write(JSON.stringify({ pauses, peak }));
}
