/** Who may come in, with what, and from where: over the routes, with a real MariaDB and the practice net. */
import { describe, expect, it } from 'vitest';
import { useDesk } from './desk';

const { mara, caller, served } = useDesk('.test/people');

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
    ['/api/sites/1/stage', { stage: 'sold' }],
  ])('%s refuses %j with a sentence', async (path, body) => {
    const a = await mara<{ message: string }>(path.endsWith('stage') ? 'PUT' : 'POST', path, body);
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
  it('is throttled after a few wrong passwords, with the same words for a stranger', async () => {
    const attempt = (email: string) =>
      caller('')<{ message: string }>('POST', '/api/sign-in', { email, password: 'wrong' });
    const [known, stranger] = [
      await attempt('ines@marram-studio.example'),
      await attempt('nobody@marram-studio.example'),
    ];
    expect(known).toMatchObject({ status: 401, body: { message: stranger.body.message } });
    let last = known;
    for (let i = 0; i < 8; i++) last = await attempt('ines@marram-studio.example');
    expect(last.status).toBe(429);
    expect(last.body.message).toMatch(/minutes/);
  });
});
