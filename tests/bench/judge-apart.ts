/** Runs the judging benchmark in a process of its own, built as the server's threads are. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import { bundle } from '../../scripts/worker-bundles.mjs';

/** @returns whether the goal was met */
export async function judgeApart(name: string, evidence: Evidence, brief: Brief): Promise<boolean> {
  const program = await bundle('tests/bench/judging.ts', join('.test', 'bench', 'judging.mjs'));
  const file = join('.test', 'bench', 'judged.json');
  writeFileSync(file, JSON.stringify({ name, brief, text: JSON.stringify(evidence) }));
  try {
    execFileSync(process.execPath, [program, file], { stdio: 'inherit' });
    return true;
  } catch {
    return false;
  }
}
