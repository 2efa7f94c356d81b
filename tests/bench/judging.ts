/**
 * Judging by the whole catalogue against JSON.parse of the same evidence: a program of its own, since a
 * judging thread has nothing else compiled or kept. Its argument is a file with name, brief and evidence.
 */
import { readFileSync } from 'node:fs';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge } from '#core/checks/engine/judge';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import { pairedRatio } from './ratio';

const { name, brief, text } = JSON.parse(readFileSync(process.argv[2]!, 'utf8')) as {
  name: string;
  brief: Brief;
  text: string;
};
process.stderr.write(`  ${Math.round(text.length / 1000)} kB of evidence\n`);
const checklist = fullChecklist();
const at = new Date((JSON.parse(text) as Evidence).finishedAt);
const good = pairedRatio(
  name,
  1.5,
  () => JSON.parse(text) as Evidence,
  (fresh) => {
    judge({ evidence: fresh, brief, checklist, situation: 'live', at, skipManual: true });
  },
);
process.exitCode = good ? 0 : 1;
