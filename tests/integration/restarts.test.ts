/** What the server does where its database goes away and comes back, and where it must not start at all. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readdirSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { freePort, startDatabase } from '../../scripts/database.mjs';
import { useDesk } from './desk';
import { until, untilHealthy } from './served';

const FOLDER = '.test/restarts';
const { mara, served, caller, environmentOf, auditAgain, settled, turn, history, sql } = useDesk(FOLDER, {
  ARMBAND_BEHIND_HTTPS: '1',
});
const parts: { stop(): Promise<void> }[] = [];
afterAll(async () => {
  for (const part of parts.reverse()) await part.stop();
});

const health = () => caller('')('GET', '/api/health');

describe('MariaDB away in the middle of an audit', () => {
  it('is told, nothing runs for ever, and what was collected is kept', async () => {
    const { id } = await environmentOf('Saltmarsh Seed Library', 'Live');
    await turn('seeds', 'live', 'slow', true);
    await mara('POST', '/api/audits', { environmentIds: [id] });
    const { database } = served.stack;
    const gone = once(database.child, 'exit');
    database.child.kill('SIGKILL');
    await gone;

    expect(await until(health, (a) => a.status === 503)).toMatchObject({
      body: { ok: false, database: 'does not answer' },
    });
    const refused = await mara<{ message: string }>('GET', '/api/roster');
    expect(refused.status).toBe(503);
    expect(refused.body.message).toMatch(/database/i);

    await startDatabase(resolve(FOLDER, 'mariadb'), ['armband'], parts, database.port);
    await until(health, (a) => a.status === 200);
    await settled();
    const [newest] = await history(id);
    expect(newest!.status).toBe('done');
    await turn('seeds', 'live', 'slow', false);
    await auditAgain(id);
  });
});

describe('HTTPS in front is a setting of the running server', () => {
  it('the session cookie is for HTTPS alone, and browsers are told to stay there', async () => {
    const answer = await fetch(`${served.stack.address}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: 'mara@marram-studio.example', password: 'marram-demo' }),
    });
    expect(answer.headers.getSetCookie().join()).toMatch(/; Secure/i);
    expect(answer.headers.get('strict-transport-security')).toMatch(/^max-age=\d+/);
  });
});

/** Starts the server by itself with these settings. */
async function begin(env: Record<string, string>) {
  const port = await freePort();
  const child = spawn(process.execPath, [resolve('.output/server/index.mjs')], {
    // nothing of the demo's settings, and none of the machine's own
    env: { PATH: process.env.PATH, PORT: String(port), NODE_ENV: 'production', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let log = '';
  const listen = (d: Buffer): void => {
    log += String(d);
  };
  child.stdout.on('data', listen);
  child.stderr.on('data', listen);
  parts.push({
    stop: async () => {
      if (child.exitCode !== null || child.signalCode !== null) return;
      const gone = once(child, 'exit');
      child.kill();
      await gone;
    },
  });
  return { child, address: `http://127.0.0.1:${port}`, log: () => log };
}
const SECRET = 'a secret of at least thirty-two letters';

/** Waits until a server answers, and signs in there. @returns the session's cookie */
async function signedInAt(address: string): Promise<string> {
  await untilHealthy(address);
  const answer = await fetch(`${address}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'mara@marram-studio.example', password: 'marram-demo' }),
  });
  return answer.headers.getSetCookie()[0]!.split(';', 1)[0]!;
}

describe('a start that cannot be', () => {
  it.each([
    ['no session secret', {}, /NUXT_SESSION_PASSWORD/],
    ['a short session secret', { NUXT_SESSION_PASSWORD: 'short' }, /at least 32/],
    [
      'a setting that is no number',
      { NUXT_SESSION_PASSWORD: SECRET, ARMBAND_PAGES: 'many' },
      /ARMBAND_PAGES must be a number/,
    ],
    [
      'no database',
      { NUXT_SESSION_PASSWORD: SECRET, ARMBAND_DB_PORT: '9', ARMBAND_START_WAIT: '1' },
      /database cannot be reached/,
    ],
  ])('with %s ends with a reason, and not with 0', async (_, env, words) => {
    const { child, log } = await begin(env);
    const [code] = (await once(child, 'exit')) as [number];
    expect(code).toBe(1);
    expect(log()).toMatch(words);
  });

  it('waits for a database that comes later, says so, and listens on this machine alone', async () => {
    const port = await freePort();
    const folder = resolve(FOLDER, 'later');
    const first = await startDatabase(folder, ['armband'], parts);
    await first.stop();
    const { address, log } = await begin({
      ...first.env,
      NUXT_SESSION_PASSWORD: SECRET,
      ARMBAND_DB_PORT: String(port),
    });
    const ask = () =>
      fetch(`${address}/api/health`).then(
        (a) => a.status,
        () => 0,
      );
    await until(ask, (status) => status === 503);
    await startDatabase(folder, ['armband'], parts, port);
    await until(ask, (status) => status === 200);
    expect(log()).toContain('Listening on http://127.0.0.1:');
  });
});

describe('a process that is told to end', () => {
  /** Long before whoever watches over it would kill it. */
  const LATEST_MS = 10_000;
  const endOf = async (child: ReturnType<typeof spawn>): Promise<number> => {
    const told = performance.now();
    const gone = once(child, 'exit');
    child.kill('SIGTERM');
    await gone;
    return performance.now() - told;
  };
  const running = async () => {
    const server = await begin({ ...served.stack.database.env, NUXT_SESSION_PASSWORD: SECRET });
    return { ...server, cookie: await signedInAt(server.address) };
  };

  it('ends while it waits for its database', async () => {
    const { child, log } = await begin({
      NUXT_SESSION_PASSWORD: SECRET,
      ARMBAND_DB_PORT: String(await freePort()),
    });
    await until(
      () => Promise.resolve(log()),
      (said) => said.includes('waiting for the database'),
    );
    expect(await endOf(child)).toBeLessThan(LATEST_MS);
  });

  it('ends while its database hangs, with a stream open and a request under way', async () => {
    const { child, address, cookie } = await running();
    const stream = await fetch(`${address}/api/live`, { headers: { cookie } });
    expect(stream.status).toBe(200);
    const { database } = served.stack;
    database.child.kill('SIGSTOP');
    try {
      const asked = fetch(`${address}/api/roster`, { headers: { cookie } }).catch(() => undefined);
      expect(await endOf(child)).toBeLessThan(LATEST_MS);
      await asked;
    } finally {
      database.child.kill('SIGCONT');
    }
    await stream.body?.cancel().catch(() => {});
  });

  it('ends while a picture is drawn that takes minutes', async () => {
    const { child, address, cookie } = await running();
    const { id } = await environmentOf('Pedal Kitchen', 'Live');
    const drawing = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">${'<rect width="9" height="9" opacity=".5"/>'.repeat(49_000)}</svg>`;
    const uploads = [1, 2].map((n) =>
      fetch(`${address}/api/environments/${id}/pictures?use=icon`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/octet-stream', 'x-file-name': `${n}.svg` },
        body: drawing,
      }).catch(() => undefined),
    );
    const isDrawing = () =>
      readdirSync('/proc').filter((pid) => {
        try {
          const [, ppid] = / \S (\d+) /.exec(readFileSync(`/proc/${pid}/stat`, 'latin1')) ?? [];
          return Number(ppid) === child.pid;
        } catch {
          return false;
        }
      }).length;
    expect(
      await until(
        () => Promise.resolve(isDrawing()),
        (n) => n >= 2,
      ),
    ).toBeGreaterThanOrEqual(2);
    expect(await endOf(child)).toBeLessThan(LATEST_MS);
    // nothing is left of what was drawing
    expect(isDrawing()).toBe(0);
    await Promise.all(uploads);
  });
});

describe('a browser that does not start', () => {
  it('is told in a sentence where a PDF is asked for', async () => {
    const { address, child } = await begin({
      ...served.stack.database.env,
      NUXT_SESSION_PASSWORD: SECRET,
      ARMBAND_BROWSER: '/bin/false',
    });
    const cookie = await signedInAt(address);
    const { id } = await environmentOf('Pedal Kitchen', 'Live');
    const [site] = await sql<{ site_id: number }>('SELECT site_id FROM environment WHERE id = ?', [id]);
    const published = await mara<{ id: number }>('POST', `/api/sites/${site!.site_id}/report/publish`, {
      environmentId: id,
    });
    const answer = await fetch(`${address}/api/reports/${published.body.id}/pdf`, { headers: { cookie } });
    expect(answer.status).toBe(503);
    expect(((await answer.json()) as { message: string }).message).toMatch(/^The PDF could not be made: /);
    child.kill();
    await once(child, 'exit');
  });
});

describe('the first start after an update', () => {
  it('re-evaluates the newest audit of each environment once, and History says that the rule changed', async () => {
    const { id } = await environmentOf('Pedal Kitchen', 'Live');
    const before = await history(id);
    await sql("UPDATE verdict SET catalogue = 'an older one' WHERE environment_id = ?", [id]);
    const start = async (): Promise<void> => {
      const { address, child } = await begin({ ...served.stack.database.env, NUXT_SESSION_PASSWORD: SECRET });
      const answers = () =>
        fetch(`${address}/api/health`).then(
          (a) => a.status,
          () => 0,
        );
      await until(answers, (status) => status === 200);
      await until(
        () => history(id),
        (verdicts) => verdicts[0]!.cause === 'update',
      );
      child.kill();
      await once(child, 'exit');
    };
    await start();
    const after = await history(id);
    expect(after).toHaveLength(before.length + 1);
    expect(after[0]!.reasons).toEqual(expect.arrayContaining(['the rule changed', 'Armband was updated']));
    expect(after[0]!.score).toBe(before[0]!.score);
    await start();
    expect(await history(id)).toHaveLength(after.length);
  });
});
