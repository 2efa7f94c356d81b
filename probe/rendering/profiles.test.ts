/** What a killed process leaves is removed, and nothing else. */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { profilesFolder, removeLeftProfiles } from './profiles';

const startOf = (pid: number): string => {
  const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
  return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19]!;
};

describe('profiles of browsers', () => {
  it('of processes that are gone are removed, with a browser that outlived them; others stay', async () => {
    const within = mkdtempSync(join(tmpdir(), 'profiles-'));
    const left = (name: string): string => {
      const folder = join(within, name, 'browser-1');
      mkdirSync(folder, { recursive: true });
      writeFileSync(join(folder, 'Cookies'), 'secret');
      return folder;
    };
    const { pid: gone } = spawnSync('true');
    const ofGone = left(`armband-browsers-${gone}-1`);
    // a number that another process has now
    const reused = left(`armband-browsers-${process.pid}-1`);
    const ofThis = left(`armband-browsers-${process.pid}-${startOf(process.pid)}`);
    const foreign = left('armband-else');
    const browser = spawn('sh', ['-c', 'sleep 1000 # "$0"', ofGone], { detached: true, stdio: 'ignore' });
    const ended = new Promise((resolve) => browser.once('exit', (_, signal) => resolve(signal)));
    writeFileSync(join(ofGone, 'pid'), `${browser.pid}\n`);
    expect(removeLeftProfiles(within)).toBe(2);
    expect([ofGone, reused, ofThis, foreign].map((f) => existsSync(f))).toEqual([false, false, true, true]);
    expect(await ended).toBe('SIGKILL');
  });
  it('of this process lie in one folder, which only its owner lists', () => {
    expect(profilesFolder()).toBe(profilesFolder());
    expect(profilesFolder()).toMatch(new RegExp(`armband-browsers-${process.pid}-\\d+$`));
  });
});
