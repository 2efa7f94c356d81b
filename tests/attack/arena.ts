/** The built server in production mode with its database, and what is read of it from outside while it is attacked. */
import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import net from 'node:net';
import { resolve } from 'node:path';
import { freePort } from '../../scripts/database.mjs';
import { DEMO_LOGIN } from '../../scripts/stack.mjs';
import { Served, until, untilHealthy, type Answer, type Caller } from '../integration/served';

/** What an attack came to. */
export interface Outcome {
  attack: string;
  happened: string;
  held: boolean;
}

const PAGE_BYTES = 4096;
export const megabytes = (bytes: number): number => Math.round(bytes / 1024 / 1024);
export const pause = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms));

/** Bytes in memory and open descriptors of a process (proc(5)). */
export const residentOf = (pid: number): number =>
  Number(readFileSync(`/proc/${pid}/statm`, 'latin1').split(' ')[1]) * PAGE_BYTES;
export const descriptorsOf = (pid: number): number => readdirSync(`/proc/${pid}/fd`).length;

/** Whether processes that a process has started are still there, by their command. */
export const childrenOf = (parent: number, words: string): number =>
  readdirSync('/proc').filter((pid) => {
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
      const [, ppid] = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
      return Number(ppid) === parent && readFileSync(`/proc/${pid}/cmdline`, 'latin1').includes(words);
    } catch {
      return false;
    }
  }).length;

export class Arena {
  readonly served = new Served('.test/attack', {
    ARMBAND_ALLOW_PRIVATE: '1',
    ARMBAND_TRUSTED_PROXIES: '127.0.0.1',
    ARMBAND_TIMEOUT: '2',
    ARMBAND_PAGES: '12',
  });
  mara!: Caller;
  joss!: Caller;
  ines!: Caller;
  private hostile!: ChildProcess;
  /** The hostile site, and where nothing of it may arrive. */
  site = '';
  other = '';
  private readonly more: ChildProcess[] = [];

  async start(): Promise<void> {
    this.hostile = spawn(process.execPath, ['tests/attack/hostile-server.mjs'], {
      stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    });
    const ports = await new Promise<string>((done) => {
      this.hostile.stdout!.once('data', (d) => done(String(d)));
    });
    [this.site = '', this.other = ''] = ports.split(' ').map((port) => `http://127.0.0.1:${port.trim()}/`);
    await this.served.start();
    this.mara = await this.served.signIn();
    this.joss = await this.served.signIn('joss@marram-studio.example');
    this.ines = await this.served.signIn('ines@marram-studio.example');
  }

  async stop(): Promise<void> {
    for (const child of this.more) child.kill('SIGKILL');
    await this.served.stop();
    this.hostile.kill('SIGKILL');
  }

  get pid(): number {
    return this.served.stack.app.pid!;
  }

  /** Signs in as somebody from an address, and takes the time. */
  async signIn(
    password = DEMO_LOGIN.password,
    { address = '203.0.113.1', cookie = '', email = 'joss@marram-studio.example' } = {},
  ): Promise<Answer<object> & { ms: number }> {
    const began = performance.now();
    const answer = await this.served.caller(cookie)(
      'POST',
      '/api/sign-in',
      { email, password },
      { 'x-forwarded-for': address },
    );
    return { ...answer, ms: performance.now() - began } as Answer<object> & { ms: number };
  }

  /** While something goes on: how long others wait to sign in, and what the server says of itself. */
  async meanwhile<T>(work: Promise<T>): Promise<{ result: T; slowestMs: number; unwell: number }> {
    let over = false;
    const done = work.finally(() => {
      over = true;
    });
    done.catch(() => {});
    let slowestMs = 0;
    let unwell = 0;
    for (let n = 0; !over; n++) {
      const { ms } = await this.signIn(DEMO_LOGIN.password, { address: `203.0.113.${n % 200}` });
      slowestMs = Math.max(slowestMs, ms);
      if ((await this.mara('GET', '/api/health')).status !== 200) unwell++;
      await pause(100);
    }
    return { result: await done, slowestMs, unwell };
  }

  /** After a while without asking, connections that the server has closed meanwhile are dropped. */
  async awake(): Promise<void> {
    await until(
      () =>
        this.mara('GET', '/api/health').then(
          () => true,
          () => false,
        ),
      Boolean,
    );
  }

  /** A site of one environment, at an address. */
  async addSite(name: string, url: string, access?: object): Promise<{ id: number; environment: number }> {
    const { body } = await this.mara<{ id: number }>('POST', '/api/sites', {
      name,
      client: 'Harm',
      environments: [{ name: 'Staging', url, ...(access ? { access } : {}) }],
      stage: 'building',
      replaces: false,
      brief: {},
    });
    const site = await this.mara<{ environments: { id: number }[] }>('GET', `/api/sites/${body.id}`);
    return { id: body.id, environment: site.body.environments[0]!.id };
  }

  /** Starts audits and waits until none is running. @returns how many came to an end with evidence */
  async audit(environmentIds: number[], scope?: object): Promise<number> {
    await this.mara('POST', '/api/audits', { environmentIds, ...(scope ? { scope } : {}) });
    await this.idle();
    let done = 0;
    for (const id of environmentIds) {
      const { body } = await this.mara<{ rows: { status: string }[] }>(
        'GET',
        `/api/environments/${id}/audits`,
      );
      if (body.rows[0]?.status === 'done') done++;
    }
    return done;
  }

  async idle(): Promise<void> {
    await until(
      async () => (await this.mara<unknown[]>('GET', '/api/audits/running')).body.length,
      (n) => n === 0,
    );
  }

  /** Another server on the same database. */
  async another(env: Record<string, string> = {}): Promise<{ child: ChildProcess; address: string }> {
    const port = await freePort();
    const child = spawn(process.execPath, [resolve('.output/server/index.mjs')], {
      env: {
        ...process.env,
        ...this.served.stack.settings,
        ...this.served.stack.database.env,
        NODE_ENV: 'production',
        PORT: String(port),
        ...env,
      },
      stdio: 'ignore',
    });
    this.more.push(child);
    const address = `http://127.0.0.1:${port}`;
    await untilHealthy(address);
    return { child, address };
  }

  /** A stream that is opened and never read. */
  deafStream(cookie: string): net.Socket {
    const { port } = new URL(this.served.stack.address);
    const socket = net.connect(Number(port), '127.0.0.1');
    socket.write(`GET /api/live HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nCookie: ${cookie}\r\n\r\n`);
    socket.pause();
    socket.on('error', () => {});
    return socket;
  }
}
