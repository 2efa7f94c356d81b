/** Pages that refuse the visitor, and hosts that are not the site’s. */
import { describe, expect, it } from 'vitest';
import { extractPage } from '#core/extract/html';
import type { Chain, Evidence } from '#core/facts/evidence';
import {
  ask,
  brief,
  brokenChain,
  chain,
  evidence,
  HOME as home,
  host,
  page,
  withPages,
} from '#core/checks/example-evidence';

describe('what refuses a visitor', () => {
  it('a challenge with 200 is no page: its titles are not judged', () => {
    const p = page({
      url: home,
      via: 'home',
      title: 'One moment, please',
      body: '<script src="/c.js"></script>',
    });
    p.facts = { ...p.facts!, text: 'Checking your browser before you go on', textLength: 38 };
    expect(ask('metadata.title-length', { evidence: withPages(p) })).toMatchObject({
      outcome: 'cantTell',
      reason: expect.stringContaining('proof of a person') as string,
    });
  });
  it('staging hosts beside the live one are no hosts of the site', () => {
    const e = evidence();
    e.hosts.push({
      ...e.hosts[0]!,
      host: 'draft.host.example',
      role: 'staging',
      https: brokenChain('https://draft.host.example/', 'refused'),
    });
    expect(ask('https.answers', { evidence: e }).outcome).toBe('passed');
  });
});

/** Redirects that come back to where they were. */
function circle(...urls: string[]): Chain {
  const { hops } = chain([...urls, urls[0]!]);
  const error = { code: 'redirect-loop' as const, message: 'its redirects go in a circle' };
  return { start: urls[0]!, hops: hops.slice(0, -1), end: 'error', error };
}
const www = 'https://www.marsh-choir.example/';
const entries = (c: Chain) => ({ http: c, https: c, httpPath: c, httpsPath: c, landing: undefined });
/** The evidence with one host's entries in a circle. */
const going = (name: string, c: Chain): Evidence =>
  evidence({
    hosts: ['marsh-choir.example', 'www.marsh-choir.example'].map((h) =>
      h === name ? host(h, entries(c)) : host(h),
    ),
  });

describe('redirects in a circle are charged where they are, and not to a server that answers', () => {
  const wwwRound = going('www.marsh-choir.example', circle(www, `${www}a`));
  const wwwToRound = going('www.marsh-choir.example', circle(home, `${home}a`));
  wwwToRound.hosts[1]!.https.hops.unshift(chain([www, home]).hops[0]!);
  it.each([
    ['https.answers', wwwRound, 'passed'],
    ['domain.preferred-host', wwwRound, 'failed'],
    ['domain.both-hosts', wwwRound, 'failed'],
    ['domain.connected', wwwRound, 'cantTell'],
    ['domain.preferred-host', wwwToRound, 'passed'],
    ['domain.preferred-host', going('marsh-choir.example', circle(home, `${home}a`)), 'failed'],
    ['domain.preferred-host', going('marsh-choir.example', circle(home, www)), 'failed'],
  ])('%s', (check, e, wanted) => {
    expect(ask(check, { evidence: e }).outcome).toBe(wanted);
  });
  it('a home page on staging', () => {
    const c = circle(home, `${home}a`);
    const e = evidence({ pages: [{ ...page({ url: home, via: 'home' }), chain: c, facts: undefined }] });
    const staging = { ...e, target: { ...e.target, kind: 'before' as const } };
    expect(ask('identity.home-page', { evidence: staging, situation: 'staging' }).outcome).toBe('failed');
    expect(ask('metadata.title-present', { evidence: staging, situation: 'staging' }).reason).toContain(
      'rests on identity.home-page',
    );
  });
});

describe('503', () => {
  const answering = (title: string, body: string, name = home): Evidence => {
    const html = `<title>${title}</title>${body}`;
    const facts = extractPage(html, name);
    const c = chain([name], 503);
    return evidence({
      hosts: [host('marsh-choir.example', { ...entries(c), landing: { url: name, status: 503, facts } })],
      pages: [{ ...page({ url: name, via: 'home', status: 503 }), facts }],
    });
  };
  const challenge = answering('One moment, please', '<p>Checking your browser.<script src="/c.js"></script>');
  const plain = answering('Closed', '<p>Back soon.');
  it.each([
    ['a challenge', 'https.answers', challenge, 'live', 'cantTell'],
    ['a challenge', 'domain.connected', challenge, 'live', 'cantTell'],
    ['a challenge', 'indexing.kept-out', challenge, 'staging', 'cantTell'],
    ['a plain one', 'https.answers', plain, 'live', 'failed'],
    ['a plain one', 'delivery.no-server-errors', plain, 'live', 'failed'],
    ['a closed environment', 'https.answers', plain, 'staging', 'passed'],
    ['a closed environment', 'delivery.no-server-errors', plain, 'staging', 'cantTell'],
    ['a closed environment', 'indexing.kept-out', plain, 'staging', 'passed'],
    ['a closed environment', 'metadata.title-present', plain, 'staging', 'cantTell'],
    ['a holding page', 'https.answers', plain, 'holding', 'passed'],
  ] as const)('%s, %s', (_, check, e, situation, wanted) => {
    expect(ask(check, { evidence: e, situation }).outcome).toBe(wanted);
  });
  it.each([
    ['a live site behind its holding page', 'indexing.no-holding-page', 'live', 'failed'],
    ['a live site behind its holding page', 'delivery.no-server-errors', 'live', 'cantTell'],
  ] as const)('%s, %s', (_, check, situation, wanted) => {
    const e = answering('Kites', '<p>We are tying the last knots.');
    const b = { ...brief(), holding: { mark: 'tying the last knots' } };
    expect(ask(check, { evidence: e, situation, brief: b }).outcome).toBe(wanted);
  });
  describe('a holding host that answers 503 without a page', () => {
    const barred = (...headers: [string, string][]) =>
      evidence({
        hosts: [host('marsh-choir.example', entries(chain([home], 503, headers)))],
        pages: [
          { ...page({ url: home, via: 'home' }), chain: chain([home], 503, headers), facts: undefined },
        ],
      });
    it.each([
      ['indexing.kept-out', barred(['Retry-After', '3600']), 'passed'],
      ['indexing.holding-page', barred(['Retry-After', '3600']), 'failed'],
      ['indexing.holding-page', barred(), 'failed'],
    ] as const)('%s', (check, e, wanted) => {
      expect(ask(check, { evidence: e, situation: 'holding' }).outcome).toBe(wanted);
    });
  });
  it('a page that refuses with 403 says nothing of who knows whom', () => {
    const c = chain([home], 403);
    const landing = { url: home, status: 403, facts: extractPage('<title>Forbidden</title>', home) };
    const e = evidence({ hosts: [host('marsh-choir.example', { ...entries(c), landing })] });
    expect(ask('domain.connected', { evidence: e }).outcome).toBe('cantTell');
  });
});
