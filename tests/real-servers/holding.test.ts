/** The holding page and its lines, pasted literally into nginx and Apache: closed for all but those who know the way. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Agent, request } from 'undici';
import {
  holdingFromBrief,
  holdingLines,
  holdingPageHtml,
  type HoldingServer,
} from '#core/launch/holding-page';
import type { Brief } from '#core/facts/brief';
import { Bed, site } from './bed';

const APEX = 'kites.example';
const BRIEF: Brief = {
  name: 'Windrow Kite Works',
  tagline: 'Kites by hand',
  languages: ['en-GB'],
  contactEmail: `hello@${APEX}`,
  preferredHost: APEX,
};
const WAY = { name: 'preview', value: 'low-tide', addresses: [] };

let bed: Bed;
let root: string;
let agent: Agent;
beforeAll(async () => {
  bed = await Bed.start();
  for (const name of [APEX, `www.${APEX}`]) bed.certificate(name);
  bed.zone(APEX, site());
  await bed.names();
  root = bed.files('kites', {
    'index.html': '<!doctype html><title>The new site</title><p>Not yet.</p>',
    'style.css': 'p{}',
    'holding.html': holdingPageHtml(holdingFromBrief(BRIEF, { name: '', launchDate: '2027-03-01' })),
  });
  agent = new Agent({
    connect: { ca: readFileSync(join(bed.folder, 'root.pem'), 'utf8'), servername: APEX },
  });
});
afterAll(async () => {
  await agent.close();
  await bed.stop();
});

const SERVE: Record<HoldingServer, (lines: string) => Promise<void>> = {
  nginx: (lines) =>
    bed.nginx(
      `server { listen 443 ssl; listen [::]:443 ssl; server_name ${APEX} www.${APEX}; ssl_certificate ssl/${APEX}/fullchain.pem; ssl_certificate_key ssl/${APEX}/privkey.pem; root ${root}; index index.html;\n${lines}\n}`,
    ),
  Apache: (lines) =>
    bed.apache(
      `<VirtualHost *:443>\nServerName ${APEX}\nSSLEngine on\nSSLCertificateFile ssl/${APEX}/fullchain.pem\nSSLCertificateKeyFile ssl/${APEX}/privkey.pem\nDocumentRoot ${root}\n<Directory ${root}>\nRequire all granted\n</Directory>\n${lines}\n</VirtualHost>`,
    ),
};

async function get(path: string, cookie = '') {
  const { statusCode, headers, body } = await request(bed.web + path, {
    dispatcher: agent,
    headers: { host: APEX, ...(cookie ? { cookie } : {}) },
  });
  return { status: statusCode, headers, text: await body.text() };
}

describe.each(['nginx', 'Apache'] as const)('%s', (server) => {
  beforeAll(() => SERVE[server](holdingLines(server, WAY)));

  it.each(['/', '/style.css', '/nowhere', '/?other=low-tide', '/?preview=high-tide'])(
    '%s shows the page, with 503 and when to come again',
    async (path) => {
      const { status, headers, text } = await get(path);
      expect(status).toBe(503);
      expect(headers['retry-after']).toBe('86400');
      expect(text).toContain('Our new site opens on 1 March 2027.');
    },
  );
  it('opens to whoever knows the way, and stays open to them', async () => {
    const opened = await get('/?preview=low-tide');
    expect(opened).toMatchObject({ status: 200, text: expect.stringContaining('The new site') as string });
    const [cookie = ''] = [opened.headers['set-cookie'] ?? []].flat();
    expect(cookie).toMatch(/^preview=low-tide;/);
    expect((await get('/style.css', 'preview=low-tide')).status).toBe(200);
    expect((await get('/style.css', 'preview=high-tide')).status).toBe(503);
    expect((await get('/', '')).headers['set-cookie']).toBeUndefined();
  });
  it('is right by the checks for holding pages', async () => {
    const { of } = await bed.audit(`https://${APEX}/`, { brief: BRIEF, situation: 'holding' });
    for (const check of ['indexing.holding-page', 'indexing.kept-out', 'identity.language'])
      expect(of(check).outcome, of(check).found ?? of(check).reason).toBe('passed');
  });
});
