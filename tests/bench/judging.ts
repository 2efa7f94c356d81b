/** Judging by the whole catalogue against JSON.parse of the same evidence, in a process of its own as the judging threads are: nothing else was compiled or kept there. */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { fullChecklist, judge } from '#core/checks/engine';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import { pairedRatio } from './ratio';

const OWN = fileURLToPath(import.meta.url);

/** @returns whether the goal was met */
export function judgeApart(name: string, evidence: Evidence, brief: Brief): boolean {
  const file = join('.test', 'bench', 'judged.json');
  writeFileSync(file, JSON.stringify({ name, brief, text: JSON.stringify(evidence) }));
  try { execFileSync(process.execPath, ['--import', 'tsx/esm', OWN, file], { stdio: 'inherit', env: { ...process.env, TSX_TSCONFIG_PATH: 'tsconfig.scripts.json' } }); return true; } catch { return false; }
}

if (process.argv[1] === OWN) {
  const { name, brief, text } = JSON.parse(readFileSync(process.argv[2]!, 'utf8')) as { name: string; brief: Brief; text: string };
  process.stderr.write(`  ${Math.round(text.length / 1000)} kB of evidence\n`);
  const checklist = fullChecklist();
  const at = new Date((JSON.parse(text) as Evidence).finishedAt);
  const good = pairedRatio(name, 1.5, () => JSON.parse(text) as Evidence, (fresh) => { judge({ evidence: fresh, brief, checklist, situation: 'live', at, leaveOutHand: true }); });
  process.exitCode = good ? 0 : 1;
}
