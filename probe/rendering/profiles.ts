/**
 * Where browsers keep their profiles, with clients' cookies in them: below one folder for each process, so that what
 * a process leaves that was killed is found and removed.
 */
import { chmodSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const NAME = /^armband-browsers-(\d+)-(\d+)$/;

/** When a process was started, in ticks since the machine was (proc(5), stat, field 22); nothing where it has ended. */
function startedAt(pid: number): string | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
    // the name may hold spaces and brackets: what follows its last bracket is read
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19];
  } catch {
    return undefined;
  }
}

/** Ends a browser that outlived its process; its group has its number. */
function endBrowser(folder: string): void {
  try {
    const pid = Number(readFileSync(join(folder, 'pid'), 'utf8'));
    if (readFileSync(`/proc/${pid}/cmdline`, 'latin1').includes(folder)) process.kill(-pid, 'SIGKILL');
  } catch {
    // it has ended
  }
}

/**
 * Removes what processes left that are gone, and ends their browsers.
 * @returns how many folders were removed
 */
export function removeLeftProfiles(within = tmpdir()): number {
  let removed = 0;
  for (const name of readdirSync(within)) {
    const [, pid, started] = NAME.exec(name) ?? [];
    if (pid === undefined || startedAt(Number(pid)) === started) continue;
    const folder = join(within, name);
    try {
      // a folder of somebody else is left to them
      if (statSync(folder).uid !== process.getuid?.()) continue;
      for (const browser of readdirSync(folder)) endBrowser(join(folder, browser));
      rmSync(folder, { recursive: true, force: true });
      removed++;
    } catch {
      // another process is removing it
    }
  }
  return removed;
}

let own: string | undefined;

/** The folder of this process, made when it is first asked for. */
export function profilesFolder(): string {
  if (own !== undefined) return own;
  removeLeftProfiles();
  const folder = join(tmpdir(), `armband-browsers-${process.pid}-${startedAt(process.pid) ?? 0}`);
  mkdirSync(folder, { recursive: true });
  // a browser's user goes through it to its own profile, and lists nothing
  chmodSync(folder, 0o711);
  own = folder;
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  return folder;
}
