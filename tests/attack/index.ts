/**
 * `npm run attack`: attacks the built server in production mode over HTTP and prints what happened; about a quarter
 * of an hour. `--write` puts the table into docs/security.md; `--only WORDS` runs those whose name has the words.
 */
import { once } from 'node:events';
import { readFileSync, writeFileSync } from 'node:fs';
import { ensureBuild } from '../../scripts/build.mjs';
import { ensureCommand } from '../../scripts/build-cli.mjs';
import { Arena, megabytes, pause, residentOf, type Outcome } from './arena';
import { ATTACKS, audits } from './attacks';

/** The one beside which nobody reads streams: it takes about ten minutes and changes what they tell. */
const CHANGING = audits[0]![0];
type Deaf = ReturnType<Arena['deafStream']>;
const DEAF_MS = 10 * 60_000;
const DOCUMENT = 'docs/security.md';
const MARKS = ['<!-- attack: begin -->', '<!-- attack: end -->'] as const;

const say = (text: string): void => void process.stdout.write(`${text}\n`);
const args = process.argv.slice(2);
const only = args.includes('--only') ? args[args.indexOf('--only') + 1]!.toLowerCase() : '';

const outcomes: Outcome[] = [];
function told(outcome: Outcome): void {
  outcomes.push(outcome);
  say(`${outcome.held ? 'held    ' : 'NOT HELD'}  ${outcome.attack}: ${outcome.happened}`);
}

const failed = (error: unknown): Omit<Outcome, 'attack'> => ({
  happened:
    `broke off: ${(error as Error).message.slice(0, 300)} ${String((error as Error).cause ?? '')}`.trim(),
  held: false,
});

ensureBuild(say);
await ensureCommand();
const arena = new Arena();
await arena.start();
try {
  const deaf: Deaf[] = [];
  let deafFrom = 0;
  let before = 0;
  /** Streams that nobody reads, from when the server is warm on: until then its memory grows for other reasons. */
  async function openDeaf(): Promise<void> {
    const { headers } = await arena.signIn();
    const cookie = headers
      .getSetCookie()
      .map((c) => c.split(';')[0])
      .join('; ');
    deafFrom = performance.now();
    before = residentOf(arena.pid);
    for (let i = 0; i < 20; i++) deaf.push(arena.deafStream(cookie));
  }

  async function closeDeaf(): Promise<void> {
    await pause(Math.max(0, deafFrom + DEAF_MS - performance.now()));
    const more = residentOf(arena.pid) - before;
    told({
      attack: 'Twenty streams that nobody reads for ten minutes, while audits change what they tell',
      happened: `${megabytes(more)} MB more than before`,
      held: more < 250 * 1024 * 1024,
    });
    for (const socket of deaf) socket.destroy();
  }

  for (const [attack, run] of ATTACKS)
    if (attack.toLowerCase().includes(only)) {
      await arena.awake();
      if (attack === CHANGING) await openDeaf();
      told({ attack, ...(await run(arena).catch(failed)) });
      if (attack === CHANGING) await closeDeaf();
    }

  const { app } = arena.served.stack;
  const gone = once(app, 'exit');
  const began = performance.now();
  app.kill('SIGTERM');
  await gone;
  const ms = performance.now() - began;
  told({
    attack: 'Told to end after all that',
    happened: `ended after ${(ms / 1000).toFixed(1)} s`,
    held: ms < 10_000,
  });
} catch (error) {
  say(arena.served.stack?.log());
  throw error;
} finally {
  await arena.stop();
}

const rows = outcomes.map((o) => `| ${o.attack} | ${o.happened} | ${o.held ? 'yes' : '**no**'} |`);
const table = ['| attack | what happened | held |', '| --- | --- | --- |', ...rows].join('\n');
say(`\n${table}`);
if (args.includes('--write')) {
  const text = readFileSync(DOCUMENT, 'utf8');
  const [from, to] = MARKS.map((mark) => text.indexOf(mark));
  writeFileSync(DOCUMENT, `${text.slice(0, from! + MARKS[0].length)}\n\n${table}\n\n${text.slice(to)}`);
}
process.exitCode = outcomes.every((o) => o.held) ? 0 : 1;
