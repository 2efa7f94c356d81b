/**
 * Pages that try to get out of the browser, or to keep it: none reaches what is not the web, and each ends in
 * time, with the pages beside it seen as if nothing had been.
 */
import dgram from 'node:dgram';
import { chmodSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { whyNotSeen, type RenderedPage, type RenderedView } from '#core/facts/rendered';
import { Dialer } from '#probe/dialer';
import { extractHere } from '#probe/extractor';
import { GuardedBrowser, USUAL_BROWSER } from '#probe/rendering/browser';
import { profilesFolder } from '#probe/rendering/profiles';
import { RenderProxy } from '#probe/rendering/proxy';
import { render } from '#probe/rendering/render';
import { dnsReply, LocalServers } from '../local-servers';

const servers = new LocalServers();
const closers: (() => void)[] = [];
afterAll(() => {
  servers.close();
  for (const close of closers) close();
});

/** What should never be reached. */
const reached: string[] = [];
/** What a window would ask for. */
const opened: string[] = [];
const SITE = 'http://front.example';
const LIMITS = { loadMs: 1500, settleMs: 1500, askMs: 2500, viewMs: 12_000 };
const MEMORY = 700 * 1024 * 1024;

/** Processes of a group that have not ended (proc(5), stat). */
const livingIn = (group: number): string[] =>
  readdirSync('/proc').filter((pid) => {
    if (!/^\d+$/.test(pid)) return false;
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
      const [state, , of] = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
      return Number(of) === group && state !== 'Z';
    } catch {
      return false;
    }
  });

const good = (script: string): string =>
  `<!doctype html><html lang="en"><head><title>Good</title></head><body><h1>Good</h1><p>A page with enough words to be a page of its own.</p><ul id="out"></ul><script>${script}</script></body></html>`;

/** Tries each address in many ways, and lists what answered. */
const tries = (addresses: string[], udp: number): string => `
const out = (text) => { const li = document.createElement('li'); li.textContent = text; document.getElementById('out').append(li); };
for (const a of ${JSON.stringify(addresses)}) {
  fetch(a, { mode: 'no-cors' }).then(() => out('fetched ' + a), () => {});
  const img = new Image(); img.onload = () => out('picture ' + a); img.src = a + '?img';
  const frame = document.createElement('iframe'); frame.src = a; document.body.append(frame);
  try { const ws = new WebSocket(a.replace(/^http/, 'ws')); ws.onopen = () => out('socket ' + a); } catch {}
  navigator.sendBeacon && navigator.sendBeacon(a);
}
fetch('file:///etc/passwd').then(() => out('file'), () => {});
const f = document.createElement('iframe'); f.src = 'file:///etc/passwd'; document.body.append(f);
try {
  const pc = new RTCPeerConnection({ iceServers: [{ urls: 'stun:127.0.0.1:${udp}' }] });
  pc.createDataChannel('x');
  pc.onicecandidate = (e) => { if (e.candidate && / udp /i.test(e.candidate.candidate)) out('candidate ' + e.candidate.candidate); };
  pc.createOffer().then((o) => pc.setLocalDescription(o));
} catch {}
`;

const PAGES: Record<string, string> = {
  '/good': good(''),
  '/loop': good('for (;;) {}'),
  '/windows': good(
    `for (let i = 0; i < 1000; i++) window.open("/good?" + i);
     const a = document.createElement('a'); a.target = '_blank'; a.href = '/good?1000'; document.body.append(a);
     for (let i = 0; i < 100; i++) a.click();
     const f = document.createElement('iframe'); document.body.append(f); f.contentWindow.open('/good?1001');`,
  ),
  '/dialogs': good('for (let i = 0; i < 20; i++) alert("no"); onbeforeunload = () => "stay"'),
  '/download': good('location.href = "/file"'),
  '/frames': good(
    'if (location.hash.length < 30) for (let i = 0; i < 4; i++) { const f = document.createElement("iframe"); f.src = location.pathname + "?" + Math.random() + location.hash + "#x"; document.body.append(f); }',
  ),
  '/mining': good('for (let i = 0; i < 4; i++) new Worker(URL.createObjectURL(new Blob(["for(;;){}"])))'),
  '/memory': good('const kept = []; setInterval(() => kept.push(new Uint8Array(60e6).fill(kept.length)), 5)'),
  '/never': good('setInterval(() => fetch("/good?" + Math.random()), 20)'),
};

let map: string[];
let resolver: string;
let addresses: string[];
beforeAll(async () => {
  const trap = await servers.http((req, res) => {
    reached.push(`${req.method} ${req.headers.host}${req.url}`);
    res.end('caught');
  });
  const { port } = new URL(trap);
  const udp = dgram.createSocket('udp4');
  udp.on('message', () => reached.push('a packet'));
  await new Promise<void>((r) => udp.bind(0, '127.0.0.1', r));
  closers.push(() => udp.close());
  const site = await servers.http((req, res) => {
    const path = new URL(req.url!, SITE).pathname;
    if (/^\/good\?\d+$/.test(req.url!)) opened.push(req.url!);
    if (path === '/to-loopback') return void res.writeHead(302, { location: `${trap}redirected` }).end();
    if (path === '/file')
      return void res.writeHead(200, { 'content-disposition': 'attachment; filename=a.bin' }).end('x');
    const page = path === '/tries' ? good(tries(addresses, udp.address().port)) : PAGES[path];
    res.writeHead(page ? 200 : 404, { 'content-type': 'text/html' }).end(page ?? 'none');
  });
  map = [`front.example=127.0.0.1:${new URL(site).port}`];
  // a name of the web that turns out to be this machine
  resolver = await servers.dns((query) =>
    dnsReply(query, [{ type: 'A', name: query.questions![0]!.name, ttl: 0, data: '127.0.0.1' }]),
  );
  addresses = [
    trap,
    `http://localhost:${port}/`,
    `http://[::1]:${port}/`,
    `http://0.0.0.0:${port}/`,
    `http://2130706433:${port}/`,
    `http://rebind.example:${port}/`,
    `http://rebind.example/`,
    'http://169.254.169.254/latest/',
    `${SITE}/to-loopback`,
  ];
});

async function seen(paths: readonly string[]): Promise<Map<string, RenderedPage['views']>> {
  const { evidence } = await render(
    paths.map((path) => SITE + path),
    { browser: { ...USUAL_BROWSER, memoryBytes: MEMORY }, pages: 0, limits: LIMITS, keepPicture: () => {} },
    {
      dialer: new Dialer({ resolvers: [resolver], map, ports: [80, 443] }),
      extract: extractHere,
      selectors: [],
      ids: [],
    },
  );
  expect(evidence.missing).toBeUndefined();
  return new Map(evidence.pages.map((p) => [new URL(p.url).pathname, p.views]));
}
const whole = (views: readonly RenderedView[] | undefined): boolean =>
  views?.length === 2 && views.every((v) => v.failure === undefined && v.facts?.titles[0]?.text === 'Good');

describe('a page in the browser', () => {
  it('reaches nothing but the web: not by fetch, picture, frame, socket, beacon, redirect, name, file or WebRTC', async () => {
    const views = (await seen(['/tries'])).get('/tries')!;
    expect(reached).toEqual([]);
    for (const view of views) {
      expect(view.failure).toBeUndefined();
      // the redirect itself is the site’s own answer; where it leads is not followed
      expect(view.facts!.text).not.toMatch(/picture|socket|file|candidate|fetched http:\/\/(?!front)/);
    }
  });
  it.each([
    ['/loop', /never rest|too long|would not close|no answer/],
    ['/memory', /more than 700 MB of memory|crashed|never rest/],
  ])('%s ends as what it is, and the page after it is seen', async (path, why) => {
    const found = await seen([path, '/good']);
    expect(found.get(path)!.some((v) => why.test(v.failure ?? ''))).toBe(true);
    expect(whole(found.get('/good'))).toBe(true);
  });
  it('a thousand windows: none is there even briefly, and the page is seen like any other', async () => {
    opened.length = 0;
    const found = await seen(['/windows']);
    expect(whole(found.get('/windows'))).toBe(true);
    expect(opened).toEqual([]);
  });
  it('dialogs, downloads, frames in frames, threads that never rest: none keeps it', async () => {
    const paths = ['/dialogs', '/download', '/frames', '/mining', '/never', '/good'];
    const found = await seen(paths);
    expect(whole(found.get('/good'))).toBe(true);
    expect(found.get('/dialogs')!.map((v) => v.failure)).toEqual([undefined, undefined]);
    expect(found.get('/never')!.every((v) => v.restless)).toBe(true);
  });
  it('leaves no process and no profile behind, and is no one’s but its own user’s', async () => {
    const proxy = await RenderProxy.start(new Dialer({ resolvers: [resolver], map }));
    const browser = await GuardedBrowser.start(USUAL_BROWSER, proxy.address);
    const { group } = browser;
    if (process.getuid?.() === 0) {
      expect(statSync(`/proc/${group}`).uid).toBeGreaterThanOrEqual(61_000);
    }
    const kept = (): string[] => readdirSync(profilesFolder(), { recursive: true }) as string[];
    expect(kept().filter((f) => f.endsWith('profile/Local State'))).toHaveLength(1);
    await browser.close();
    await proxy.close();
    await vi.waitFor(() => expect(livingIn(group)).toEqual([]));
    expect(kept()).toEqual([]);
  });
  it('says that there is none, or that it does not start; one that starts late is waited for', async () => {
    const asked = (path: string, limits = {}) =>
      render(
        [`${SITE}/good`],
        { browser: { ...USUAL_BROWSER, path }, pages: 0, limits },
        {
          dialer: new Dialer({ resolvers: [resolver], map }),
          extract: extractHere,
          selectors: [],
          ids: [],
        },
      );
    expect((await asked('/nowhere/chromium')).evidence.missing).toBe('no browser here');
    expect((await asked('/bin/false')).evidence.missing).toMatch(/^the browser does not start here: /);
    const late = join(mkdtempSync(join(tmpdir(), 'armband-late-')), 'browser');
    writeFileSync(
      late,
      `#!/bin/sh\n[ -e '${late}.mark' ] && exec ${USUAL_BROWSER.path} "$@"\ntouch '${late}.mark'\n`,
      { mode: 0o755 },
    );
    chmodSync(dirname(late), 0o777);
    const { evidence } = await asked(late);
    expect([evidence.missing, whole(evidence.pages[0]?.views)]).toEqual([undefined, true]);
    expect(whyNotSeen(evidence)).toBeUndefined();
    const none = (await asked(USUAL_BROWSER.path, { windowMs: 0 })).evidence;
    expect(whyNotSeen(none)).toBe('the browser gave no window for 1 of 1 pages');
  });
});
