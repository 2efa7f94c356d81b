/**
 * The site of two thousand pages: memory, size of the evidence, time to judge it. In a process of its own, so
 * that its memory is its own.
 */
import { spawn } from 'node:child_process';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge } from '#core/checks/engine/judge';
import type { Brief } from '#core/facts/brief';
import { collect } from '#probe/collect';
import { packJson } from '../../server/platform/packed';
import { officialFacts } from '../../net/practice-net';

interface Net {
  resolver: string;
  map: string[];
}

/** @returns whether all goals were met */
export async function benchLargeSite(net: Net, ca: string): Promise<boolean> {
  const child = spawn(
    process.execPath,
    ['--import', 'tsx/esm', 'tests/bench/large-site.ts', JSON.stringify({ net, ca })],
    {
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, TSX_TSCONFIG_PATH: 'tsconfig.scripts.json' },
    },
  );
  let out = '';
  child.stdout.on('data', (d) => {
    out += String(d);
  });
  await new Promise((done) => child.once('exit', done));
  const { pages, peak, packed, seconds, judging } = JSON.parse(out) as {
    pages: number;
    peak: number;
    packed: number;
    seconds: number;
    judging: number;
  };
  process.stdout.write(
    `${pages} pages in one audit: ${seconds.toFixed(1)} s\npeak memory of that audit: ${peak} MB, goal < 500 MB\nits evidence, packed: ${packed.toFixed(2)} KB a page, goal < 3 KB\njudging it by the whole catalogue: ${judging.toFixed(2)} s, goal <= 1.5 s\n`,
  );
  return pages === 2000 && peak < 500 && packed < 3 && judging <= 1.5;
}

if (process.argv[1]?.endsWith('large-site.ts')) {
  const { net, ca } = JSON.parse(process.argv[2]!) as { net: Net; ca: string };
  const brief = officialFacts('curlew') as Brief;
  const started = performance.now();
  const evidence = await collect({
    url: 'https://curlew-point.example/',
    kind: 'live',
    brief,
    resolvers: [net.resolver],
    map: net.map,
    ca: [ca],
    retryPauseMs: 1,
    maxPages: 3000,
  });
  const seconds = (performance.now() - started) / 1000;
  const peak = Math.round(process.resourceUsage().maxRSS / 1024);
  const packed = (await packJson(evidence)).length / 1000 / evidence.pages.length;
  const once = () => {
    const fresh = structuredClone(evidence);
    const from = performance.now();
    judge({
      evidence: fresh,
      brief,
      checklist: fullChecklist(),
      situation: 'live',
      at: new Date(),
      skipManual: true,
    });
    return (performance.now() - from) / 1000;
  };
  const judging = [once(), once(), once()].sort((a, b) => a - b)[1];
  process.stdout.write(JSON.stringify({ pages: evidence.pages.length, peak, packed, seconds, judging }));
}
