/**
 * The commands that show a finding, run as they are: dig, openssl and curl have to see what the evidence says. The
 * servers stand on loopback, and their root is trusted through the environment, as an administrator would do it.
 */
import { execFile, execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import https from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkById } from '#core/checks/catalogue/index';
import type { Evidence } from '#core/facts/evidence';
import { commandsFor, type ShownBy } from '#core/verify/commands';
import { collect } from '#probe/collect';
import { serveDns, type DnsServer } from '../../net/dns-server';

const execute = promisify(execFile);
const Z = 'kites.example';
const SPF = 'v=spf1 include:spf.provider.example -all';
let folder: string;
let dns: DnsServer;
let web: https.Server;
let port: number;
let evidence: Evidence;
const root = (): string => join(folder, 'site.pem');

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'armband-commands-'));
  execFileSync(
    'openssl',
    ['req', '-x509', '-nodes', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256', '-days', '3']
      .concat(['-keyout', join(folder, 'site.key'), '-out', root(), '-subj', `/CN=${Z}`])
      .concat(['-addext', `subjectAltName=DNS:${Z}`]),
    { stdio: 'pipe' },
  );
  dns = await serveDns((name, type) => {
    const record = (value: string) => ({ name, type, ttl: 60, value });
    const isOurs = name === Z || name.endsWith(`.${Z}`);
    const records =
      name === Z && type === 'A'
        ? [record('127.0.0.1')]
        : name === Z && type === 'TXT'
          ? [record(`"${SPF}"`)]
          : [];
    return { rcode: isOurs && (name === Z || records.length) ? 0 : 3, authoritative: true, records };
  });
  web = https.createServer(
    { key: readFileSync(join(folder, 'site.key')), cert: readFileSync(root()) },
    (req, res) => {
      const isPage = req.url === '/' || req.url === '/a%27b/';
      res.writeHead(isPage ? 200 : 404, {
        'content-type': 'text/html',
        'x-seen-agent': req.headers['user-agent'] ?? '',
      });
      res.end(
        `<!doctype html><title>Kites</title><h1>Kites</h1><a href="/a%27b/">A page with a quote in its address</a>`,
      );
    },
  );
  await new Promise<void>((resolve) => web.listen(0, '127.0.0.1', resolve));
  ({ port } = web.address() as AddressInfo);
  evidence = await collect({
    url: `https://${Z}:${port}/`,
    kind: 'live',
    brief: { preferredHost: Z },
    resolvers: [`127.0.0.1:${dns.port}`],
    allowPrivate: true,
    ca: [readFileSync(root(), 'utf8')],
    timeoutMs: 4000,
    retryPauseMs: 10,
  });
});
afterAll(async () => {
  web.closeAllConnections();
  web.close();
  await dns.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Runs the command while the servers of this process answer it. */
async function run(check: string, place: string, tool: ShownBy['tool']): Promise<string> {
  const command = commandsFor(checkById.get(check)!, place, evidence).find((c) => c.tool === tool)!;
  const env = { ...process.env, CURL_CA_BUNDLE: root(), SSL_CERT_FILE: root() };
  return (await execute('/bin/sh', ['-c', command.line], { env, timeout: 20_000 })).stdout;
}

describe('as they are pasted', () => {
  it('dig sees the record', async () => {
    const [answer] = evidence.dns.answers.filter((a) => a.name === Z && a.type === 'TXT');
    expect(answer!.records[0]!.value).toContain(SPF);
    expect(await run('domain.spf', Z, 'dig')).toContain(SPF);
  });
  it('dig sees that a name is not there', async () => {
    expect(await run('domain.dmarc', `_dmarc.${Z}`, 'dig')).toContain('status: NXDOMAIN');
  });
  it('openssl sees the certificate, and what it thinks of it', async () => {
    const out = await run('https.certificate-valid', Z, 'openssl');
    const pem = /-----BEGIN CERTIFICATE-----[\s\S]+?-----END CERTIFICATE-----/.exec(out)![0];
    const [leaf] = evidence.hosts[0]!.tls.chain;
    expect(new X509Certificate(pem).fingerprint256).toBe(leaf!.fingerprint256);
    expect(out).toContain('Verify return code: 0 (ok)');
  });
  it.each([
    ['the home page', '/', 200],
    ['a page whose address has a quote in it', '/a%27b/', 200],
  ])('curl sees %s', async (_, path, status) => {
    const place = `https://${Z}:${port}${path}`;
    const page = evidence.pages.find((p) => p.url === place)!;
    expect(page.chain.hops[0]!.status).toBe(status);
    const headers = await run('metadata.title-present', place, 'curl');
    expect(headers).toMatch(new RegExp(`^HTTP/1\\.1 ${status} `));
    // asked in the same way
    expect(headers).toContain(`x-seen-agent: ${evidence.agent}`);
  });
});
