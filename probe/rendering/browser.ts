/**
 * A browser that is trusted with nothing: a fresh profile, its own user where there is a choice, no way to a
 * network but the proxy, and an end that takes all its children along.
 */
import { randomInt } from 'node:crypto';
import {
  accessSync,
  chmodSync,
  constants,
  mkdtempSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Browser } from 'playwright-core';
import { profilesFolder } from './profiles';

export interface BrowserSettings {
  /** Where the browser lies. */
  path: string;
  /** The sandbox of its own may be left out only where a container has none to give. */
  sandbox: boolean;
  /** What all its processes may take together. */
  memoryBytes: number;
  /** Keys that it trusts beside its own store: SHA-256 of the public key's DER, as base64 (RFC 7469 2.4). */
  keys: readonly string[];
}

export const USUAL_BROWSER: BrowserSettings = {
  path: '/usr/bin/chromium',
  sandbox: true,
  memoryBytes: 1536 * 1024 * 1024,
  keys: [],
};

/** Whether there is a browser at all. */
export function isThere({ path }: Pick<BrowserSettings, 'path'>): boolean {
  try {
    accessSync(path, constants.X_OK);
    return true;
  } catch {
    return false;
  }
}

/** A busy machine may need a moment. */
const AGAIN_MS = 2500;

/** Starts a browser, and once more a little later where it does not start at first. @throws Error */
export async function startPatiently(start: () => Promise<GuardedBrowser>): Promise<GuardedBrowser> {
  try {
    return await start();
  } catch {
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    return start();
  }
}

/** Numbers of users that Debian gives to nobody (Debian Policy 9.2.2: 60000 to 64999 are for packages that ask). */
const NOBODY = [61_000, 64_000] as const;

/**
 * Starts the browser by way of a script that writes its process down, keeps its profile beside it, and where we are
 * root becomes a user who owns nothing but the profile.
 * @returns the program to start in its place
 */
function startedBy(path: string, folder: string): string {
  const program = join(folder, 'browser.sh');
  const user = randomInt(...NOBODY);
  const isRoot = process.getuid?.() === 0;
  const become = `HOME="$home" TMPDIR="$home" exec setpriv --reuid ${user} --regid ${user} --clear-groups`;
  writeFileSync(
    program,
    `#!/bin/sh
echo $$ > '${join(folder, 'pid')}'
home='${join(folder, 'profile')}'
mkdir "$home"
for given in "$@"; do
  shift
  case "$given" in --user-data-dir=*)
    rmdir "\${given#--user-data-dir=}"
    given="--user-data-dir=$home" ;;
  esac
  set -- "$@" "$given"
done
${isRoot ? `chown -R ${user}:${user} "$home"\n${become}` : 'exec'} '${path}' "$@"
`,
    { mode: 0o755 },
  );
  return program;
}

const SWITCHES = [
  '--disable-quic',
  // no way to a network that is not the proxy's
  '--force-webrtc-ip-handling-policy=disable_non_proxied_udp',
  '--webrtc-ip-handling-policy=disable_non_proxied_udp',
  '--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1',
  '--disable-gpu',
  '--mute-audio',
  '--disable-sync',
  '--disable-features=DialMediaRouteProvider,MediaRouter,OptimizationHints,AutofillServerCommunication',
  '--js-flags=--max-old-space-size=384',
];
const STARTING_MS = 20_000;
const LOOK_MS = 250;

const PAGE_BYTES = 4096;

/** Bytes in memory of a process group, without what its processes share (proc(5): stat and statm). */
function memoryOf(group: number): number {
  let sum = 0;
  for (const pid of readdirSync('/proc')) {
    if (!/^\d+$/.test(pid)) continue;
    try {
      // the name may hold spaces and brackets: what follows its last bracket is read
      const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
      if (Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[2]) !== group) continue;
      const [, resident = 0, shared = 0] = readFileSync(`/proc/${pid}/statm`, 'latin1')
        .split(' ')
        .map(Number);
      sum += (resident - shared) * PAGE_BYTES;
    } catch {
      // it has ended meanwhile
    }
  }
  return sum;
}

export class GuardedBrowser {
  private killed?: string;
  /** The largest that it was. */
  peakBytes = 0;
  private readonly watch: NodeJS.Timeout;

  private constructor(
    readonly browser: Browser,
    private readonly folder: string,
    /** Of its processes: the number of the first of them. */
    readonly group: number,
    memoryBytes: number,
  ) {
    this.watch = setInterval(() => {
      this.peakBytes = Math.max(this.peakBytes, memoryOf(this.group));
      if (this.peakBytes > memoryBytes)
        this.kill(`the page took more than ${Math.round(memoryBytes / 1024 / 1024)} MB of memory`);
    }, LOOK_MS);
  }

  /**
   * @param proxy its only way to a network
   * @throws Error where it does not start
   */
  static async start(settings: BrowserSettings, proxy: string): Promise<GuardedBrowser> {
    // loaded by whoever starts a browser, and by nobody else: it takes as long as all the rest
    const { chromium } = await import('playwright-core');
    const folder = mkdtempSync(join(profilesFolder(), 'browser-'));
    chmodSync(folder, 0o755);
    try {
      const browser = await chromium.launch({
        executablePath: startedBy(settings.path, folder),
        chromiumSandbox: settings.sandbox,
        proxy: { server: proxy, bypass: '<-loopback>' },
        // a page opens no window by itself
        ignoreDefaultArgs: ['--disable-popup-blocking'],
        timeout: STARTING_MS,
        handleSIGINT: false,
        handleSIGTERM: false,
        handleSIGHUP: false,
        args: [
          ...SWITCHES,
          ...(settings.keys.length
            ? [`--ignore-certificate-errors-spki-list=${settings.keys.join(',')}`]
            : []),
        ],
      });
      // started in a group of its own, which it leads
      const group = Number(readFileSync(join(folder, 'pid'), 'utf8'));
      return new GuardedBrowser(browser, folder, group, settings.memoryBytes);
    } catch (error) {
      await rm(folder, { recursive: true, force: true });
      throw error;
    }
  }

  /** Why it is not there any more, where it was ended on purpose. */
  get ended(): string | undefined {
    return this.killed ?? (this.browser.isConnected() ? undefined : 'the browser ended by itself');
  }

  /** Ends it and all its children at once. */
  kill(why: string): void {
    this.killed ??= why;
    clearInterval(this.watch);
    try {
      process.kill(-this.group, 'SIGKILL');
    } catch {
      // it has ended
    }
  }

  async close(): Promise<void> {
    clearInterval(this.watch);
    await Promise.race([
      this.browser.close().catch(() => {}),
      new Promise((resolve) => setTimeout(resolve, 3000).unref()),
    ]);
    this.kill('closed');
    await rm(this.folder, { recursive: true, force: true });
  }
}
