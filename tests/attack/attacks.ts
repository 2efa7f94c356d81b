/** What is tried, one after the other. Each says what happened, and whether that is what is wanted. */
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { COMMAND } from '../../scripts/build-cli.mjs';
import { Redis } from '../integration/redis';
import { until, type Answer } from '../integration/served';
import { childrenOf, descriptorsOf, megabytes, pause, residentOf, type Arena, type Outcome } from './arena';

export type Attack = [name: string, run: (arena: Arena) => Promise<Omit<Outcome, 'attack'>>];

const seconds = (ms: number): string => `${(ms / 1000).toFixed(1)} s`;
const counted = (statuses: readonly number[]): string =>
  [...new Set(statuses)]
    .sort((a, b) => a - b)
    .map((status) => `${statuses.filter((s) => s === status).length} x ${status}`)
    .join(', ');
const statusesOf = (answers: readonly Answer<unknown>[]): number[] => answers.map((a) => a.status);

/** Another drawing for each number; no limit of its parts refuses it, and it takes minutes to draw. */
const endless = (n: number): Buffer =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${n} ${n}">${`<rect width="${n}" height="${n}" opacity=".5"/>`.repeat(49_000)}</svg>`,
  );

const pictures: Attack[] = [
  [
    'Six drawings that take minutes are uploaded at once',
    async (arena) => {
      const { environment } = await arena.addSite('Drawings', arena.site);
      const upload = (n: number) =>
        arena.mara('POST', `/api/environments/${environment}/pictures?use=icon`, endless(n), {
          'x-file-name': 'icon.svg',
        });
      const { result, slowestMs, unwell } = await arena.meanwhile(
        Promise.all([64, 65, 66, 67, 68, 69].map(upload)),
      );
      const statuses = statusesOf(result);
      return {
        happened: `${counted(statuses)}; others signed in within ${seconds(slowestMs)}`,
        held: statuses.every((s) => s === 400) && slowestMs < 2000 && unwell === 0,
      };
    },
  ],
  [
    'A 15 kB icon of noise and blur on an audited site, shown as a thumbnail forty times',
    async (arena) => {
      const { environment } = await arena.addSite('Noise', arena.site);
      const small = (n: number) =>
        arena.mara(
          'GET',
          `/api/environments/${environment}/pictures/small?width=96&url=${encodeURIComponent(`${arena.site}noise.svg?${n}`)}`,
        );
      const began = performance.now();
      const { result, slowestMs } = await arena.meanwhile(
        Promise.all(Array.from({ length: 40 }, (_, n) => small(n))),
      );
      const statuses = statusesOf(result);
      const ms = performance.now() - began;
      return {
        happened: `${counted(statuses)} in ${seconds(ms)}; others signed in within ${seconds(slowestMs)}`,
        held: statuses.every((s) => s === 400) && ms < 15_000 && slowestMs < 2000,
      };
    },
  ],
];

const passwords: Attack[] = [
  [
    'Fifty addresses guess at one account for a minute',
    async (arena) => {
      const email = 'ines@marram-studio.example';
      const first = await arena.signIn(undefined, { email, address: '203.0.113.250' });
      const known = first.headers
        .getSetCookie()
        .map((c) => c.split(';')[0])
        .find((c) => c?.startsWith('armband-browser='))!;
      const end = performance.now() + 60_000;
      const tried: number[] = [];
      const attack = Promise.all(
        Array.from({ length: 50 }, async (_, n) => {
          while (performance.now() < end) {
            tried.push((await arena.signIn('a wrong one', { email, address: `198.51.100.${n}` })).status);
            await pause(20);
          }
        }),
      );
      await pause(10_000);
      const knownOnes = [];
      for (let n = 0; n < 5; n++)
        knownOnes.push(await arena.signIn(undefined, { email, address: '203.0.113.250', cookie: known }));
      const fresh = await arena.signIn(undefined, { email, address: '203.0.113.251' });
      await attack;
      const checked = tried.filter((s) => s === 401).length;
      const slowest = Math.max(...knownOnes.map((k) => k.ms));
      const isIn = knownOnes.every((k) => k.status === 200) && fresh.status === 200;
      return {
        happened: `${tried.length} tries, ${checked} passwords checked; a known browser in within ${seconds(slowest)}, a new one within ${seconds(fresh.ms)}`,
        held: isIn && slowest < 5000 && fresh.ms < 30_000 && checked <= 60,
      };
    },
  ],
  [
    'Wrong tokens at password links from 40 addresses, while somebody uses a right one',
    async (arena) => {
      const person = { name: 'Fen Holt', email: 'fen@marram-studio.example' };
      const { body } = await arena.mara<{ link: { token: string } }>('POST', '/api/people', person);
      const use = (token: string, address: string) =>
        arena.served.caller()(
          'POST',
          '/api/password-link',
          { token, wanted: 'a long enough password' },
          { 'x-forwarded-for': address },
        );
      const wrong = Array.from({ length: 400 }, (_, n) =>
        use(`wrong-token-${n}`.padEnd(32, 'x'), `198.51.100.${n % 40}`),
      );
      const right = await use(body.link.token, '203.0.113.9');
      return {
        happened: `${counted(statusesOf(await Promise.all(wrong)))}; the right one ${right.status}`,
        held: right.status === 200,
      };
    },
  ],
];

/** A directory that names one entry again and again. */
function overlapping(times: number): Buffer {
  const zip = Buffer.from(zipSync({ 'a.bin': new Uint8Array(1_000_000) }, { level: 0 }));
  const central = zip.indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
  const end = zip.indexOf(Buffer.from([0x50, 0x4b, 5, 6]));
  const entry = zip.subarray(central, end);
  const tail = Buffer.from(zip.subarray(end));
  tail.writeUInt16LE(times, 8);
  tail.writeUInt16LE(times, 10);
  tail.writeUInt32LE(entry.length * times, 12);
  return Buffer.concat([zip.subarray(0, central), ...Array.from({ length: times }, () => entry), tail]);
}

/** Runs the command line with a file that it is to read. */
function command(args: string[], limitMs: number): { code: number | null; ms: number } {
  const began = performance.now();
  const { status } = spawnSync(process.execPath, [COMMAND, ...args], {
    timeout: limitMs,
    killSignal: 'SIGKILL',
    env: { ...process.env, NODE_OPTIONS: '--max-old-space-size=1024' },
  });
  return { code: status, ms: performance.now() - began };
}

const files: Attack[] = [
  [
    'A ZIP of 1,500 entries over one header, and one that says it is smaller than it is',
    async (arena) => {
      const { id } = await arena.addSite('Builds', arena.site);
      const bomb = Buffer.from(zipSync({ 'a.bin': new Uint8Array(300_000_000) }, { level: 9 }));
      bomb.writeUInt32LE(10, bomb.indexOf(Buffer.from([0x50, 0x4b, 1, 2])) + 24);
      await arena.awake();
      const before = residentOf(arena.pid);
      let most = before;
      const watch = setInterval(() => (most = Math.max(most, residentOf(arena.pid))), 20);
      const answers = [];
      try {
        for (const zip of [overlapping(1500), bomb])
          answers.push(
            await arena.mara('POST', `/api/sites/${id}/build`, zip, { 'x-file-name': 'site.zip' }),
          );
      } finally {
        clearInterval(watch);
      }
      return {
        happened: `${counted(statusesOf(answers))}; at most ${megabytes(most - before)} MB more`,
        held: answers.every((a) => a.status === 400) && most - before < 200 * 1024 * 1024,
      };
    },
  ],
  [
    'Tables of three million characters, four at once',
    async (arena) => {
      const text = `name,live address\n${'"a""b",c\n'.repeat(330_000)}`;
      const { result, slowestMs } = await arena.meanwhile(
        Promise.all([1, 2, 3, 4].map(() => arena.mara('POST', '/api/sites/look', { text }))),
      );
      return {
        happened: `${counted(statusesOf(result))}; others signed in within ${seconds(slowestMs)}`,
        held: result.every((a) => a.status < 500) && slowestMs < 2000,
      };
    },
  ],
  [
    'HAR and zone files that nest, repeat, include and never end',
    () => {
      const folder = join(tmpdir(), `armband-attack-${process.pid}`);
      mkdirSync(folder, { recursive: true });
      const hostile: [option: string, text: string][] = [
        ['--from-har', '['.repeat(5_000_000)],
        ['--from-har', '{"log":{"entries":{"length":1e9}}}'],
        [
          '--from-har',
          JSON.stringify({
            log: {
              version: '1.2',
              entries: Array.from({ length: 60_000 }, (_, i) => ({
                request: { url: `https://a.example/${i}`, method: 'GET', headers: null },
                response: { status: 'x', content: { text: '\u0000' } },
              })),
            },
          }),
        ],
        ['--from-zone', '$INCLUDE /etc/passwd\n$GENERATE 1-4294967295 h$ A 192.0.2.1\n'],
        ['--from-zone', `a IN TXT ${'('.repeat(1_000_000)}`],
        ['--from-zone', `${'@ 300 IN A 192.0.2.1\n'.repeat(200_000)}`],
      ];
      const came = hostile.map(([option, text], n) => {
        const file = join(folder, `${n}.txt`);
        writeFileSync(file, text);
        return command(['https://a.example/', option, file, '--format', 'json'], 60_000);
      });
      const slowest = Math.max(...came.map((c) => c.ms));
      return Promise.resolve({
        happened: `exit codes ${came.map((c) => c.code).join(', ')}; the slowest ${seconds(slowest)}`,
        held: came.every((c) => c.code !== null && c.code <= 3),
      });
    },
  ],
];

/** A contact with an opened link to a site that has an edition. */
async function shared(arena: Arena, email: string) {
  const found = await arena.mara<{ id: number; name: string }[]>('GET', '/api/sites/find?words=Lifeboat');
  const siteId = found.body[0]!.id;
  const { body: site } = await arena.mara<{ environments: { id: number; name: string }[] }>(
    'GET',
    `/api/sites/${siteId}`,
  );
  const environmentId = site.environments.find((e) => e.name === 'Staging')!.id;
  const edition = await arena.mara<{ id: number }>('POST', `/api/sites/${siteId}/report/publish`, {
    environmentId,
  });
  const shown = await arena.mara<{ clientId: number }>('GET', `/api/sites/${siteId}/report/shown`);
  const contact = await arena.mara<{ id: number }>('POST', `/api/clients/${shown.body.clientId}/contacts`, {
    name: 'Ada Brook',
    email,
  });
  const link = await arena.mara<{ secret: string }>('POST', `/api/sites/${siteId}/share-links`, {
    contactId: contact.body.id,
    days: 7,
  });
  const base = `/api/shared/${link.body.secret}`;
  const opened = await arena.served.caller()('POST', `${base}/open`, {});
  const ask = arena.served.caller(opened.headers.getSetCookie()[0]!.split(';')[0]);
  return {
    siteId,
    editionId: edition.body.id,
    contactId: contact.body.id,
    post: (path: string, body: object) => ask('POST', base + path, body),
    get: (path: string) => ask('GET', base + path),
    open: () => arena.served.caller()('POST', `${base}/open`, {}),
  };
}

const clients: Attack[] = [
  [
    'One yes sent twenty times at once, then taken back',
    async (arena) => {
      const { post, editionId, siteId, contactId } = await shared(arena, 'ada@loft.example');
      const sent = await Promise.all(Array.from({ length: 20 }, () => post('/yes', { editionId })));
      await post('/withdraw', { reason: 'not yet' });
      const { body } = await arena.mara<{
        approvals: { contactId: number; withdrawn: object | null }[];
      }>('GET', `/api/sites/${siteId}/report/shown`);
      const own = body.approvals.filter((a) => a.contactId === contactId);
      const left = own.filter((a) => !a.withdrawn).length;
      return {
        happened: `${counted(statusesOf(sent))}; stored ${own.length}, standing after it was taken back ${left}`,
        held: own.length === 1 && left === 0,
      };
    },
  ],
  [
    'A link is opened 300 times, sends 300 remarks, asks for 20 PDFs at once',
    async (arena) => {
      const { post, get, open } = await shared(arena, 'bram@loft.example');
      const opened = await Promise.all(Array.from({ length: 300 }, () => open()));
      const remarks = await Promise.all(
        Array.from({ length: 300 }, (_, n) => post('/remarks', { about: 'whole', text: `remark ${n}` })),
      );
      const pdfs = await Promise.all(Array.from({ length: 20 }, () => get('/pdf')));
      const good = (all: readonly Answer<unknown>[]): number => all.filter((a) => a.status === 200).length;
      return {
        happened: `opened ${good(opened)}, remarks ${good(remarks)}, PDFs made ${good(pdfs)}`,
        held: good(opened) <= 100 && good(remarks) === 200 && good(pdfs) === 1,
      };
    },
  ],
];

const races: Attack[] = [
  [
    'Two people ask at once to leave a blocker, and two agree at once',
    async (arena) => {
      const { body } = await arena.mara<{
        rows: { id: number; check: string; severity: string; environmentId: number }[];
      }>('GET', '/api/fixes?sort=worst');
      const { id: fix, check, environmentId } = body.rows.find((r) => r.severity === 'blocker')!;
      const wish = { reason: 'until the new contract', until: '2027-06-01' };
      const asked = await Promise.all(
        [arena.mara, arena.joss].map((who) => who('POST', `/api/fixes/${fix}/accept`, wish)),
      );
      const { body: one } = await arena.mara<{ acceptance: { id: number } | null }>(
        'GET',
        `/api/environments/${environmentId}/findings/${check}`,
      );
      const id = one.acceptance?.id ?? 0;
      const agreed = await Promise.all(
        [arena.mara, arena.joss, arena.ines].map((who) => who('POST', `/api/acceptances/${id}/second`)),
      );
      const good = statusesOf(agreed).filter((s) => s === 200).length;
      return {
        happened: `asked ${counted(statusesOf(asked))}; agreed ${counted(statusesOf(agreed))}`,
        held: statusesOf(asked).filter((s) => s === 200).length === 1 && good === 1,
      };
    },
  ],
  [
    'Two people ask at once to launch all the same, and the second one agrees twice',
    async (arena) => {
      const found = await arena.mara<{ id: number }[]>('GET', '/api/sites/find?words=Sallow%20Choir');
      const path = `/api/sites/${found.body[0]!.id}/sheet`;
      await arena.mara('POST', path, { plannedAt: new Date(Date.now() + 86_400_000).toISOString() });
      interface Sheet {
        launch: { id: number; anyway: { at: string; by: string } | null };
        go: { codes: string[] };
      }
      const { body: sheet } = await arena.mara<Sheet>('GET', path);
      const go = (who: typeof arena.mara, input: object) =>
        who('POST', `/api/launches/${sheet.launch.id}/go`, { seen: sheet.go.codes, ...input });
      const asked = await Promise.all([
        go(arena.mara, { reason: 'the day is fixed' }),
        go(arena.joss, { reason: 'it is time' }),
      ]);
      const { body: then } = await arena.mara<Sheet>('GET', path);
      const second = then.launch.anyway?.by === 'Mara Quill' ? arena.joss : arena.mara;
      const agreed = await Promise.all([1, 2].map(() => go(second, { agreesTo: then.launch.anyway?.at })));
      const good = (all: readonly Answer<unknown>[]): number => all.filter((a) => a.status === 200).length;
      return {
        happened: `asked ${counted(statusesOf(asked))}; agreed ${counted(statusesOf(agreed))}`,
        held: good(asked) === 1 && good(agreed) === 1,
      };
    },
  ],
];

const house: Attack[] = [
  [
    'Killed while a browser looks at a site',
    async (arena) => {
      const ids = [];
      // more than the first server takes at once, so that the other one takes some
      for (let n = 0; n < 6; n++) ids.push((await arena.addSite(`Killed ${n}`, arena.site)).environment);
      const { child } = await arena.another({ ARMBAND_WORKERS: '4' });
      const mark = `armband-browsers-${child.pid}-`;
      const left = (): string[] => readdirSync(tmpdir()).filter((name) => name.startsWith(mark));
      await arena.audit(ids, { parts: ['pages'] });
      await arena.mara('POST', '/api/audits', { environmentIds: ids, scope: { parts: ['rendered'] } });
      await until(() => Promise.resolve(left().length), Boolean).catch(() => 0);
      const wasThere = left().length > 0;
      child.kill('SIGKILL');
      await arena.idle();
      const next = await arena.another();
      const after = left().length;
      next.child.kill('SIGTERM');
      return {
        happened: `profiles ${wasThere ? 'left behind' : 'not seen'}, ${after} after the next start`,
        held: wasThere && after === 0,
      };
    },
  ],
  [
    'Redis absent at the start, then there, then restarted, with two servers on one database',
    async (arena) => {
      const redis = new Redis();
      await redis.start();
      await redis.stop('SIGKILL');
      const { address, child } = await arena.another({ ARMBAND_REDIS: redis.address });
      const ids = [];
      for (let n = 0; n < 3; n++) ids.push((await arena.addSite(`Redis ${n}`, arena.site)).environment);
      const done = [await arena.audit(ids)];
      await redis.start();
      done.push(await arena.audit(ids));
      await redis.stop('SIGKILL');
      await redis.start();
      done.push(await arena.audit(ids));
      const health = (await fetch(`${address}/api/health`)).status;
      child.kill('SIGTERM');
      await redis.stop();
      return {
        happened: `audits done: ${done.map((d) => `${d} of 3`).join(', ')}; the server says ${health}`,
        held: done.every((d) => d === 3) && health === 200,
      };
    },
  ],
];

/** A site of the tests of hostile servers, as a program of its own. */
async function hostileSite(kind: string): Promise<{ url: string; end: () => void }> {
  const child = spawn(process.execPath, ['tests/hostile-site.mjs', kind], {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  const port = await new Promise<string>((done) => child.stdout!.once('data', (d) => done(String(d).trim())));
  return { url: `http://127.0.0.1:${port}/`, end: () => void child.kill('SIGKILL') };
}

const hostile: Attack[] = [
  [
    'Sites of endless sitemaps, of files that unpack, of links by ten redirects, of answers that drip',
    async (arena) => {
      const sites = await Promise.all(['sitemaps', 'files', 'links', 'slow'].map(hostileSite));
      const ids = [];
      for (const [n, { url }] of sites.entries())
        ids.push((await arena.addSite(`Hostile kind ${n}`, url)).environment);
      const before = residentOf(arena.pid);
      let most = before;
      const watch = setInterval(() => (most = Math.max(most, residentOf(arena.pid))), 50);
      const began = performance.now();
      try {
        const { result, slowestMs, unwell } = await arena.meanwhile(arena.audit(ids));
        const ms = performance.now() - began;
        return {
          happened: `${result} of 4 with evidence in ${seconds(ms)}; at most ${megabytes(most - before)} MB more; others signed in within ${seconds(slowestMs)}`,
          held: result === 4 && slowestMs < 2000 && unwell === 0 && most - before < 1024 * 1024 * 1024,
        };
      } finally {
        clearInterval(watch);
        for (const { end } of sites) end();
      }
    },
  ],
];

/** Audits of the hostile site, again and again: what the server has in memory and open before and after. */
async function manyAudits(arena: Arena, times: number, scope?: object): Promise<Omit<Outcome, 'attack'>> {
  const ids = [];
  const secret = 'marram-and-tide-77';
  const access = { kind: 'credentials', name: 'marram', value: secret };
  for (let n = 0; n < 10; n++)
    ids.push((await arena.addSite(`Hostile ${times} ${n}`, arena.site, access)).environment);
  // what is loaded once is loaded before it is measured
  await arena.audit(ids.slice(0, 2), scope);
  const before = { memory: residentOf(arena.pid), open: descriptorsOf(arena.pid) };
  const began = performance.now();
  let done = 0;
  for (let n = 0; n < times; n += ids.length) done += await arena.audit(ids, scope);
  const ms = performance.now() - began;
  const more = {
    memory: residentOf(arena.pid) - before.memory,
    open: descriptorsOf(arena.pid) - before.open,
  };
  const caught = (await (await fetch(`${arena.other}caught`)).json()) as string[];
  const basic = Buffer.from(`marram:${secret}`).toString('base64');
  const leaked = caught.filter((c) => c.includes(secret) || c.includes(basic)).length;
  const browsers = childrenOf(arena.pid, 'chromium');
  return {
    happened: `${done} of ${times} with evidence in ${seconds(ms)}; ${megabytes(more.memory)} MB and ${more.open} descriptors more, ${browsers} browsers left; ${caught.length} requests caught elsewhere, ${leaked} with the secret`,
    held:
      done === times && more.memory < 150 * 1024 * 1024 && more.open < 30 && leaked === 0 && browsers === 0,
  };
}

export const audits: Attack[] = [
  ['200 audits of a hostile site behind a password, without the browser', (arena) => manyAudits(arena, 200)],
  ['20 audits of it with the browser', (arena) => manyAudits(arena, 20, { parts: ['pages', 'rendered'] })],
];

export const ATTACKS: Attack[] = [
  ...pictures,
  ...passwords,
  ...files,
  ...clients,
  ...races,
  ...house,
  ...hostile,
  ...audits,
];
