/** The demo's own start and stop: whatever has been started when Ctrl-C comes is ended with it. */
import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { afterAll, describe, expect, it } from 'vitest';

const FOLDER = '.test/demo-stop';

/** Processes that were started with a mark in their environment, which children inherit. */
function leftOf(mark: string): string[] {
  return readdirSync('/proc')
    .filter((p) => /^\d+$/.test(p) && Number(p) !== process.pid)
    .filter((p) => {
      try {
        return readFileSync(`/proc/${p}/environ`, 'latin1').includes(mark);
      } catch {
        return false;
      }
    });
}

async function said(child: ChildProcess, words: string): Promise<void> {
  let text = '';
  await new Promise<void>((resolve, reject) => {
    child.stdout!.on('data', (d) => {
      text += String(d);
      if (text.includes(words)) resolve();
    });
    child.once('exit', () => reject(new Error(`it ended before it said “${words}”: ${text}`)));
  });
}

describe('Ctrl-C', () => {
  afterAll(() => rmSync(FOLDER, { recursive: true, force: true }));
  it.each(['Starting MariaDB', 'Starting the practice net', 'Starting the application'])(
    'after “%s” leaves nothing behind',
    async (words) => {
      const mark = `ARMBAND_STOP_TEST=${words.replace(/ /g, '-')}-${process.pid}`;
      const child = spawn(process.execPath, ['scripts/demo.mjs', '--folder', FOLDER], {
        stdio: ['ignore', 'pipe', 'inherit'],
        env: { ...process.env, ARMBAND_STOP_TEST: mark.split('=')[1]! },
      });
      await said(child, words);
      const gone = new Promise<number | null>((r) => child.once('exit', r));
      child.kill('SIGINT');
      expect(await gone).toBe(0);
      // what its parts had started themselves ends with them, a moment later
      await expect.poll(() => leftOf(mark), { timeout: 30_000 }).toEqual([]);
    },
  );
});
