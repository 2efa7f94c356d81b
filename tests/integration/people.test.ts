/** Who may come in, with what, and from where: over the routes, with a real MariaDB and the practice net. */
import net from 'node:net';
import { describe, expect, it } from 'vitest';
import { suffices, ROUTES } from '../../server/platform/http/rights';
import { useDesk } from './desk';

const { mara, caller, served, sql } = useDesk('.test/people', { ARMBAND_TRUSTED_PROXIES: '127.0.0.1' });

describe('without a session', () => {
  it.each([
    '/api/roster',
    '/api/me',
    '/api/fixes',
    '/api/sites/1',
    '/api/environments/1/ledger',
    '/api/audits/running',
    '/api/practice-net',
    '/api/people',
    '/api/host-profiles',
    '/api/catalogue',
    '/api/nothing-here',
  ])('GET %s answers 401', async (path) => {
    expect((await caller('')('GET', path)).status).toBe(401);
  });
  it.each([
    '/api/audits',
    '/api/sites',
    '/api/read-site',
    '/api/practice-net',
    '/api/sign-out',
    '/api/fixes/1/accept',
  ])('POST %s answers 401', async (path) => {
    expect((await caller('')('POST', path)).status).toBe(401);
  });
  it.each(['/', '/fixes', '/sites/1', '/sites/new', '/practice-net'])('%s leads to sign-in', async (path) => {
    const a = await fetch(served.stack.address + path, { redirect: 'manual' });
    expect(a.status).toBe(302);
    expect(a.headers.get('location')).toMatch(/^\/sign-in/);
  });
  it('a forged cookie is none', async () => {
    expect((await caller('armband-session=Fe26.2**forged')('GET', '/api/roster')).status).toBe(401);
  });
});

describe('what comes in', () => {
  it('from another site is refused', async () => {
    expect(
      (await mara('POST', '/api/audits', { environmentIds: [1] }, { origin: 'https://evil.example' })).status,
    ).toBe(403);
    expect(
      (await mara('POST', '/api/audits', { environmentIds: [1] }, { 'sec-fetch-site': 'cross-site' })).status,
    ).toBe(403);
    expect((await mara('POST', '/api/audits', {}, { 'content-type': 'text/plain' })).status).toBe(400);
  });
  it.each([
    ['/api/audits', {}],
    ['/api/audits', { environmentIds: ['1; DROP TABLE site'] }],
    ['/api/audits', { environmentIds: [1], more: 1 }],
    ['/api/sites', { name: '' }],
    ['/api/read-site', { url: 'javascript:alert(1)' }],
    ['/api/sites/1', { stage: 'sold' }],
    ['/api/clients/1', { name: ' ' }],
  ])('%s refuses %j with a sentence', async (path, body) => {
    const a = await mara<{ message: string }>(path.endsWith('/1') ? 'PATCH' : 'POST', path, body);
    expect(a.status).toBe(400);
    expect(a.body.message.length).toBeGreaterThan(8);
  });
  it.each(['/api/sites/999999', '/api/sites/abc', '/api/environments/999999/ledger', '/api/fixes/999999'])(
    '%s is not there',
    async (path) => {
      expect((await mara('GET', path)).status).toBe(404);
    },
  );
  it('answers carry a strict policy and no open door for other origins', async () => {
    const a = await fetch(`${served.stack.address}/sign-in`);
    expect(a.headers.get('content-security-policy')).toMatch(
      /default-src 'self'.*|script-src 'self' 'nonce-/,
    );
    expect(a.headers.get('content-security-policy')).not.toContain('unsafe-eval');
    expect(a.headers.get('access-control-allow-origin')).toBeNull();
  });
});

describe('signing in', () => {
  it('says the same of a wrong password and of a stranger', async () => {
    const attempt = (email: string) =>
      caller('')<{ message: string }>('POST', '/api/sign-in', { email, password: 'wrong' });
    const known = await attempt('joss@marram-studio.example');
    const stranger = await attempt('nobody@marram-studio.example');
    expect(known).toMatchObject({ status: 401, body: { message: stranger.body.message } });
  });
  /** A sign-in from an address of its own; the practice server believes its own machine what it says of that. */
  const from = (address: string, password: string, cookie = '') =>
    caller(cookie)(
      'POST',
      '/api/sign-in',
      { email: 'ines@marram-studio.example', password },
      { 'x-forwarded-for': address },
    );
  it('under attack from 50 addresses a known browser signs in, and so does a new one', async () => {
    const first = await from('203.0.113.5', 'marram-demo');
    const known = first.headers
      .getSetCookie()
      .find((c) => c.startsWith('armband-browser='))!
      .split(';')[0]!;
    const tried: number[] = [];
    const attack = Array.from({ length: 50 }, (_, n) =>
      Promise.all(
        Array.from({ length: 6 }, async () => tried.push((await from(`198.51.100.${n}`, 'wrong')).status)),
      ),
    );
    expect((await from('203.0.113.5', 'marram-demo', known)).status).toBe(200);
    expect((await from('203.0.113.77', 'marram-demo')).status).toBe(200);
    await Promise.all(attack);
    expect(tried.filter((status) => status === 401).length).toBeLessThanOrEqual(60);
    expect((await from('203.0.113.5', 'marram-demo', known)).status).toBe(200);
    // a cookie that somebody made up gives no places
    const forged = `${known.split('.')[0]}.AAAA`;
    expect((await from('198.51.100.3', 'marram-demo', forged)).status).toBe(429);
    await sql('DELETE FROM sign_in_guess');
    await sql('DELETE FROM sign_in_tally');
  });
  it('wrong tokens of password links stand in no other link’s way', async () => {
    const body = { name: 'Fen Holt', email: 'fen@marram-studio.example' };
    const made = await mara<{ id: number; link: { token: string } }>('POST', '/api/people', body);
    const use = (token: string, address: string) =>
      caller('')(
        'POST',
        '/api/password-link',
        { token, wanted: 'a long enough password' },
        { 'x-forwarded-for': address },
      );
    const wrong = Array.from({ length: 60 }, (_, n) =>
      use(`wrong-token-of-a-link-${n}`.padEnd(40, 'x'), `198.51.100.${n}`),
    );
    expect((await use(made.body.link.token, '203.0.113.8')).status).toBe(200);
    expect(new Set((await Promise.all(wrong)).map((a) => a.status))).toEqual(new Set([404]));
    await mara('DELETE', `/api/people/${made.body.id}`);
  });
  it('of 300 guesses at once only a few are checked, and whoever knows the password still gets in', async () => {
    const guess = (password: string) =>
      caller('')('POST', '/api/sign-in', { email: 'ines@marram-studio.example', password });
    const statuses = (await Promise.all(Array.from({ length: 300 }, () => guess('wrong')))).map(
      (a) => a.status,
    );
    // four at once, and each further one waits twice as long as the one before
    expect(statuses.filter((s) => s === 401).length).toBeLessThanOrEqual(8);
    expect(statuses.filter((s) => s === 429).length).toBeGreaterThan(290);
    expect(await served.signIn('ines@marram-studio.example')).toBeDefined();
    expect((await guess('marram-demo')).status).toBe(200);
  });
});

/** What goes over the wire as it is written, without a client that tidies it up. */
function raw(head: string[], body?: (write: (chunk: string) => boolean) => Promise<void>): Promise<string> {
  const { hostname, port } = new URL(served.stack.address);
  return new Promise((resolve, reject) => {
    const socket = net.connect(Number(port), hostname, () => {
      socket.write(`${head.join('\r\n')}\r\n\r\n`);
      void body?.((chunk) => socket.write(chunk)).catch(() => {});
    });
    let text = '';
    socket.on('data', (d) => {
      text += String(d);
    });
    socket.on('error', () => resolve(text));
    socket.on('close', () => resolve(text));
    socket.setTimeout(20_000, () => reject(new Error('no end')));
  });
}
const statusOf = (answer: string): number => Number(/^HTTP\/1\.1 (\d+)/.exec(answer)?.[1]);

describe('nobody can stop it', () => {
  it.each([
    [
      '150,000 fields at sign-in',
      '/api/sign-in',
      Object.fromEntries(Array.from({ length: 150_000 }, (_, i) => [`f${i}`, 1])),
      413,
    ],
    [
      'more fields than anything has',
      '/api/read-site',
      Object.fromEntries(Array.from({ length: 101 }, (_, i) => [`f${i}`, 1])),
      400,
    ],
    [
      'deeper than anything is',
      '/api/read-site',
      JSON.parse(`${'{"a":'.repeat(30)}1${'}'.repeat(30)}`) as object,
      400,
    ],
    ['a form of a megabyte', '/api/read-site', { url: 'x'.repeat(1_000_000) }, 413],
  ])('%s', async (_, path, body, status) => {
    const asked = path === '/api/sign-in' ? caller('') : mara;
    const started = performance.now();
    expect((await asked('POST', path, body)).status).toBe(status);
    expect(performance.now() - started).toBeLessThan(5000);
  });
  it('a body without an end is cut off when it is too long', async () => {
    const chunk = `${(65_536).toString(16)}\r\n${'x'.repeat(65_536)}\r\n`;
    let sent = 0;
    const answer = await raw(
      [
        'POST /api/sign-in HTTP/1.1',
        'Host: x',
        'Content-Type: application/json',
        'Transfer-Encoding: chunked',
      ],
      async (write) => {
        for (; sent < 2000; sent++) {
          if (!write(chunk)) await new Promise((r) => setTimeout(r, 1));
        }
      },
    );
    expect(answer).toMatch(/^HTTP\/1\.1 413 /);
    expect(sent).toBeLessThan(2000);
  });
  it.each([
    '/api/x\\..\\..\\_nuxt\\y',
    '/_nuxt/../api/roster',
    '/_nuxt/%2e%2e/api/roster',
    '/_nuxt%2f..%2fapi/roster',
    '//api/roster',
    '/_nuxt/..%5capi/roster',
    'http://evil.example/api/roster',
  ])('the path %s is no way round the guard', async (path) => {
    const answer = await raw([`GET ${path} HTTP/1.1`, 'Host: x', 'Connection: close']);
    // 404: the application's own files come before the guard, and this is none of them
    expect([400, 401, 404]).toContain(statusOf(answer));
    expect(answer).not.toContain('Tarn');
  });
  it('a wrong Host is no fault of ours', async () => {
    const answer = await raw(['GET /sign-in HTTP/1.1', 'Host: a b[', 'Connection: close']);
    expect(statusOf(answer)).toBeLessThan(500);
  });
  it('answers of the API are kept by no cache', async () => {
    expect((await mara('GET', '/api/people')).headers.get('cache-control')).toBe('no-store');
  });
  it('health asks the database', async () => {
    expect((await caller('')('GET', '/api/health')).body).toMatchObject({
      ok: true,
      database: 'answers',
      threads: 'answers',
    });
  });
});

describe('a session ends when it should', () => {
  interface Made {
    id: number;
    link: { token: string };
  }
  const LONG = 'a long enough password';
  const signedIn = async (email: string, password: string) => {
    const answer = await fetch(`${served.stack.address}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email, password }),
    });
    return caller(
      answer.headers
        .getSetCookie()
        .map((c) => c.split(';')[0])
        .join('; '),
    );
  };
  it('signing out by the library’s own route ends it too', async () => {
    const session = await signedIn('joss@marram-studio.example', 'marram-demo');
    expect((await session('GET', '/api/me')).status).toBe(200);
    expect((await session('DELETE', '/api/_auth/session')).status).toBe(200);
    expect((await session('GET', '/api/me')).status).toBe(401);
  });
  it('people are added, choose a password by a link once, and are removed', async () => {
    const email = 'tam@marram-studio.example';
    const made = await mara<Made>('POST', '/api/people', { name: 'Tam Bell', email });
    expect(made.status).toBe(200);
    expect((await mara('POST', '/api/people', { name: 'Tam', email })).status).toBe(409);
    const use = (wanted: string) =>
      caller('')('POST', '/api/password-link', { token: made.body.link.token, wanted });
    expect((await use('short')).status).toBe(400);
    expect((await use(LONG)).status).toBe(200);
    expect((await use(LONG)).status).toBe(404);
    const tam = await signedIn(email, LONG);
    expect((await tam('GET', '/api/me')).body).toMatchObject({ name: 'Tam Bell' });
    expect((await mara('PATCH', `/api/people/${made.body.id}`, { name: 'Tamsin Bell' })).status).toBe(200);
    expect((await tam('GET', '/api/me')).body).toMatchObject({ name: 'Tamsin Bell' });
    expect((await mara('DELETE', `/api/people/${made.body.id}`)).status).toBe(200);
    expect((await tam('GET', '/api/me')).status).toBe(401);
    const { body: left } = await mara<{ id: number }[]>('GET', '/api/people');
    expect(left.some((p) => p.id === made.body.id)).toBe(false);
    const me = await mara<{ id: number }>('GET', '/api/me');
    expect((await mara('DELETE', `/api/people/${me.body.id}`)).status).toBe(400);
  });
  it('by signing out, by a new password, and everywhere', async () => {
    const email = 'wren@marram-studio.example';
    const made = await mara<Made>('POST', '/api/people', { name: 'Wren', email });
    await caller('')('POST', '/api/password-link', { token: made.body.link.token, wanted: LONG });
    const [first, second, third] = [
      await signedIn(email, LONG),
      await signedIn(email, LONG),
      await signedIn(email, LONG),
    ];
    const isIn = async (who: typeof first) => (await who('GET', '/api/me')).status === 200;
    expect((await first<unknown[]>('GET', '/api/me/sessions')).body).toHaveLength(3);
    await first('POST', '/api/sign-out');
    expect([await isIn(first), await isIn(second)]).toEqual([false, true]);
    const [, other] = (await second<{ key: string; isThis: boolean }[]>('GET', '/api/me/sessions')).body.sort(
      (a, b) => Number(b.isThis) - Number(a.isThis),
    );
    expect((await second('DELETE', `/api/me/sessions/${other!.key}`)).status).toBe(200);
    expect(await isIn(third)).toBe(false);
    expect((await second('POST', '/api/me/password', { old: 'wrong', wanted: LONG })).status).toBe(400);
    const fourth = await signedIn(email, LONG);
    expect((await second('POST', '/api/me/password', { old: LONG, wanted: `${LONG} 2` })).status).toBe(200);
    expect([await isIn(second), await isIn(fourth)]).toEqual([false, false]);
    const fifth = await signedIn(email, `${LONG} 2`);
    const sixth = await signedIn(email, `${LONG} 2`);
    await fifth('POST', '/api/me/sessions/end-all');
    expect(await isIn(sixth)).toBe(false);
  });
});

// last, since it ends everybody's sessions
describe('every route with every right', () => {
  // what ends the session that it is asked with comes last
  const last = (route: string): number => Number(/sign-out|end-all/.test(route));
  const routes = Object.entries(ROUTES).sort(([a], [b]) => last(a) - last(b));
  const paths = routes.map(([route, needs]) => {
    const [method = '', path = ''] = route.split(' ');
    // numbers and names that are nowhere
    const asked = path.replaceAll(/:check\b/g, 'https.hsts').replaceAll(/:\w+/g, '4294967295');
    return [method, asked, needs] as const;
  });
  const isRefused = (status: number): boolean => status === 401 || status === 403;

  it('somebody must stay an owner', async () => {
    const people = (await mara<{ people: { id: number; owner: boolean }[] }>('GET', '/api/people/team')).body
      .people;
    const [owner, ...none] = people.filter((p) => p.owner);
    expect(none).toEqual([]);
    const other = people.find((p) => !p.owner)!;
    const set = (id: number, isOwner: boolean) => mara('PATCH', `/api/people/${id}`, { owner: isOwner });
    expect((await set(owner!.id, false)).status).toBe(400);
    expect((await set(other.id, true)).status).toBe(200);
    expect((await set(other.id, false)).status).toBe(200);
  });

  it('a stranger may use those for anyone, and no other', async () => {
    for (const [method, path, needs] of paths)
      if (path !== '/api/sign-in')
        expect([path, (await caller('')(method, path, {})).status === 401]).toEqual([
          path,
          needs !== 'anyone',
        ]);
  });
  it('whoever is signed in may use all but those of an owner; an owner all', async () => {
    for (const [email, has] of [
      ['ines@marram-studio.example', 'signed in'],
      ['mara@marram-studio.example', 'owner'],
    ] as const) {
      const person = await served.signIn(email);
      for (const [method, path, needs] of paths) {
        // a stream has no end, and a wrong password is refused too
        if (path === '/api/live' || path === '/api/sign-in') continue;
        const asking = last(path) ? await served.signIn(email) : person;
        const { status } = await asking(method, path, method === 'GET' ? undefined : {});
        expect([method, path, isRefused(status)]).toEqual([method, path, !suffices(has, needs)]);
      }
    }
  });
});
