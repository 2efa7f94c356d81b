/** Whether the threads that passwords, files and compression share answer. */
import { execFileSync } from 'node:child_process';
import { closeSync, mkdtempSync, openSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { threadsAnswer } from './readiness';

it('the threads answer, unless none of them comes back within two seconds', async () => {
  expect(await threadsAnswer()).toBe(true);
  // whoever opens a pipe to read waits for somebody who writes (fifo(7)), each in a thread
  const pipe = join(mkdtempSync(join(tmpdir(), 'armband-threads-')), 'pipe');
  execFileSync('mkfifo', [pipe]);
  const readers = Array.from({ length: Number(process.env.UV_THREADPOOL_SIZE ?? 4) }, () => open(pipe, 'r'));
  expect(await threadsAnswer()).toBe(false);
  closeSync(openSync(pipe, 'w'));
  for (const reader of await Promise.all(readers)) await reader.close();
  expect(await threadsAnswer()).toBe(true);
});
