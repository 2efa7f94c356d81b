/** Redirects of former addresses, pasted literally into nginx and Apache: each leads where it is to, and nothing else does. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Agent, request } from 'undici';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { redirectLines } from '#core/recipes/redirects';
import { Bed, site } from './bed';

const APEX = 'kites.example';
const LIST = [
  { from: '/history.html', to: '/about/' },
  { from: '/old%20page.html', to: '/new/' },
  { from: '/caf%C3%A9.html', to: '/cafe/' },
  { from: '/a+b', to: 'https://www.kites.example/c?d=1' },
  { from: '/index.html', to: '/' },
  { from: '/', to: '/' },
  { from: '/trams.html', to: '/trams' },
  { from: '/caf%C3%A9/the%20house.html', to: '/caf%C3%A9/' },
  { from: '/closed.html', to: '410' },
  { from: '/there', to: '/back' },
  { from: '/back', to: '/there' },
  { from: '/x"; return 200 "y', to: '/z' },
];
let bed: Bed;
let root: string;
let agent: Agent;
beforeAll(async () => {
  bed = await Bed.start();
  bed.certificate(APEX);
  bed.zone(APEX, site());
  await bed.names();
  root = bed.files('kites', {
    'index.html': '<!doctype html><title>Kites</title>',
    'trams.html': '<!doctype html><title>Trams</title>',
  });
  agent = new Agent({
    connect: { ca: readFileSync(join(bed.folder, 'root.pem'), 'utf8'), servername: APEX },
  });
});
afterAll(async () => {
  await agent.close();
  await bed.stop();
});

const SERVE = {
  nginx: (lines: string) =>
    bed.nginx(
      `server { listen 443 ssl; listen [::]:443 ssl; server_name ${APEX}; ssl_certificate ssl/${APEX}/fullchain.pem; ssl_certificate_key ssl/${APEX}/privkey.pem; root ${root}; index index.html; location = /trams { rewrite ^ /trams.html last; }\n${lines}\n}`,
    ),
  Apache: (lines: string) =>
    bed.apache(
      `<VirtualHost *:443>\nServerName ${APEX}\nSSLEngine on\nSSLCertificateFile ssl/${APEX}/fullchain.pem\nSSLCertificateKeyFile ssl/${APEX}/privkey.pem\nDocumentRoot ${root}\n<Directory ${root}>\nRequire all granted\nRewriteEngine On\nRewriteRule ^trams$ trams.html\n</Directory>\n${lines}\n</VirtualHost>`,
    ),
};

describe.each(['nginx', 'Apache'] as const)('%s', (server) => {
  beforeAll(() => SERVE[server](redirectLines(LIST, server, [APEX])));
  it.each([
    ['a plain path', '/history.html', 301, '/about/'],
    ['a space', '/old%20page.html', 301, '/new/'],
    ['a letter beyond ASCII', '/caf%C3%A9.html', 301, '/cafe/'],
    ['a plus, and a whole address', '/a+b', 301, 'https://www.kites.example/c?d=1'],
    ['a path that only begins alike', '/history.html5', 404, undefined],
    ['a path of which the dot is another letter', '/historyXhtml', 404, undefined],
    ['what is no simple rule', '/x%22;%20return%20200%20%22y', 404, undefined],
    ['the home page, of which the list says that it stays', '/', 200, undefined],
    ['the file behind the home page', '/index.html', 301, '/'],
    [
      'the same with a query',
      '/index.html?a=b',
      301,
      expect.stringMatching(/^\/(?:\?a=b)?$/) as unknown as string,
    ],
    ['a file behind an address without its ending', '/trams.html', 301, '/trams'],
    ['that address', '/trams', 200, undefined],
    ['a file that leads to its folder, beyond ASCII', '/caf%C3%A9/the%20house.html', 301, '/caf%C3%A9/'],
    ['what leads in a circle', '/there', 404, undefined],
    ['what is gone on purpose', '/closed.html', 410, undefined],
  ])('%s', async (_, path, status, to) => {
    const { statusCode, headers, body } = await request(bed.web + path, {
      dispatcher: agent,
      headers: { host: APEX },
    });
    await body.dump();
    expect(statusCode).toBe(status);
    const location = headers.location === undefined ? undefined : String(headers.location);
    expect(location?.replace(/^https:\/\/kites\.example(?::\d+)?/, '')).toEqual(to);
  });
});
