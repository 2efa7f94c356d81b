/** TLS of every broken kind: recorded as what it is, and the content is read all the same where it can be. */
import 'reflect-metadata';
import * as x509 from '@peculiar/x509';
import { execFileSync } from 'node:child_process';
import { webcrypto } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import https from 'node:https';
import type net from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TlsOptions } from 'node:tls';
import type { AddressInfo } from 'node:net';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { Evidence } from '#core/facts/evidence';
import { collect } from '#probe/collect';
import { LocalServers } from '../local-servers';

x509.cryptoProvider.set(webcrypto as unknown as Crypto);
const servers = new LocalServers();
const closers: (() => void)[] = [];
afterEach(() => {
  servers.close();
  for (const c of closers.splice(0)) c();
});

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'armband-tls-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A certificate made by openssl, as no library of ours would make it. */
function made(name: string, ...more: string[]): { key: Buffer; cert: Buffer } {
  const key = join(folder, `${name}.key`),
    cert = join(folder, `${name}.pem`);
  execFileSync(
    'openssl',
    ['req', '-x509', '-nodes', '-keyout', key, '-out', cert, '-subj', '/CN=site.example', ...more],
    { stdio: 'pipe' },
  );
  return { key: readFileSync(key), cert: readFileSync(cert) };
}
const EC = ['-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256'];
const SAN = ['-addext', 'subjectAltName=DNS:site.example'];

async function secure(options: TlsOptions): Promise<number> {
  const server = https.createServer(options, (_, res) => {
    res.setHeader('content-type', 'text/html');
    res.end('<!doctype html><title>Behind it</title><p>words');
  });
  server.on('tlsClientError', () => {});
  closers.push(() => {
    server.closeAllConnections();
    server.close();
  });
  await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
  return (server.address() as AddressInfo).port;
}
/** A busy machine needs long for a handshake; where only time ends it, BRIEF_MS. */
const PATIENT_MS = 10_000,
  BRIEF_MS = 700;
const auditAt = (port: number, timeoutMs = PATIENT_MS): Promise<Evidence> =>
  collect({
    url: 'https://site.example/',
    kind: 'live',
    map: [`site.example:443=127.0.0.1:${port}`, 'site.example:80=127.0.0.1:9'],
    resolvers: ['127.0.0.1:9'],
    timeoutMs,
    retryPauseMs: 5,
  });
const raw = (onConnect: (s: net.Socket) => void) => servers.tcp(onConnect);

describe('a certificate that', () => {
  it.each([
    ['is signed by itself', [...EC, ...SAN], /SELF_SIGNED/],
    ['has no names', [...EC], /SELF_SIGNED/],
    ['has a weak key', ['-newkey', 'rsa:1024', ...SAN], /SELF_SIGNED/],
    [
      'has names with commas and quotes',
      [...EC, '-addext', 'subjectAltName=DNS:site.example,DNS:a\\,DNS:evil.example'],
      /SELF_SIGNED/,
    ],
    [
      'has five hundred names',
      [
        ...EC,
        '-addext',
        `subjectAltName=${Array.from({ length: 500 }, (_, i) => `DNS:h${i}.example`).join(',')}`,
      ],
      /SELF_SIGNED/,
    ],
    ['runs for a hundred years', [...EC, ...SAN, '-days', '36500'], /SELF_SIGNED/],
    ['has an Ed25519 key', ['-newkey', 'ed25519', ...SAN], /SELF_SIGNED/],
  ])('%s', async (name, more, error) => {
    const pair = made(name.replace(/\W/g, '-'), ...more);
    const e = await auditAt(
      await secure({ ...pair, ...(name.includes('weak') ? { ciphers: 'DEFAULT@SECLEVEL=0' } : {}) }),
    );
    const { tls: seen } = e.hosts[0]!;
    expect(seen.trusted).toBe(false);
    expect(seen.trustError ?? seen.error?.message).toMatch(
      name.includes('weak') ? /SELF_SIGNED|key|TLS/ : error,
    );
    if (!seen.error) {
      expect(seen.chain).toHaveLength(1);
      expect(seen.chain[0]!.names.length).toBeLessThanOrEqual(200);
      expect(e.pages[0]!.facts?.titles[0]?.text).toBe('Behind it');
    }
  });
});

describe('a certificate with dates that', () => {
  it.each([
    ['lie in the past', -400, -300, 'CERT_HAS_EXPIRED'],
    ['lie ahead', 300, 400, 'CERT_NOT_YET_VALID'],
  ] as const)('%s', async (_, from, to, error) => {
    const keys = await webcrypto.subtle.generateKey({ name: 'ECDSA', namedCurve: 'P-256' }, true, [
      'sign',
      'verify',
    ]);
    const day = (n: number) => new Date(Date.now() + n * 86_400_000);
    const cert = await x509.X509CertificateGenerator.createSelfSigned({
      serialNumber: '01',
      name: 'CN=site.example',
      notBefore: day(from),
      notAfter: day(to),
      signingAlgorithm: { name: 'ECDSA', hash: 'SHA-256' },
      keys: keys as never,
      extensions: [
        new x509.SubjectAlternativeNameExtension([{ type: 'dns', value: 'site.example' }]),
        new x509.BasicConstraintsExtension(true),
      ],
    });
    const key = x509.PemConverter.encode(
      await webcrypto.subtle.exportKey('pkcs8', keys.privateKey),
      'PRIVATE KEY',
    );
    const pem = cert.toString('pem');
    const port = await secure({ key, cert: pem });
    const e = await collect({
      url: 'https://site.example/',
      kind: 'live',
      ca: [pem],
      map: [`site.example:443=127.0.0.1:${port}`, 'site.example:80=127.0.0.1:9'],
      resolvers: ['127.0.0.1:9'],
      timeoutMs: PATIENT_MS,
    });
    expect(e.hosts[0]!.tls.trustError).toBe(error);
    expect(e.pages[0]!.facts?.titles[0]?.text).toBe('Behind it');
  });
});

describe('a port 443 that', () => {
  it('speaks HTTP', async () => {
    const url = await servers.http((_, res) => res.end());
    expect((await auditAt(Number(new URL(url).port))).hosts[0]!.tls.error?.code).toMatch(
      /tls|protocol|reset/,
    );
  });
  it('greets like a mail server', async () => {
    expect(
      (await auditAt(await raw((s) => s.write('220 mail ready\r\n')))).hosts[0]!.tls.error?.code,
    ).toMatch(/tls|protocol|reset/);
  });
  it('stays silent', async () => {
    const started = performance.now();
    const e = await auditAt(await raw(() => {}), BRIEF_MS);
    expect(e.hosts[0]!.tls.error?.code).toBe('timeout');
    expect(performance.now() - started).toBeLessThan(30_000);
  });
  it('hangs up in the handshake', async () => {
    expect(
      (await auditAt(await raw((s) => s.once('data', () => s.destroy())))).hosts[0]!.tls.error?.code,
    ).toMatch(/tls|reset/);
  });
  it('sends an alert', async () => {
    expect(
      (await auditAt(await raw((s) => s.once('data', () => s.end(Buffer.from([21, 3, 3, 0, 2, 2, 40]))))))
        .hosts[0]!.tls.error?.code,
    ).toMatch(/tls|reset|protocol/);
  });
  it('sends a record of 16 MB', async () => {
    expect(
      (
        await auditAt(
          await raw((s) =>
            s.once('data', () => {
              s.write(Buffer.from([22, 3, 3, 255, 255]));
              s.write(Buffer.alloc(1_000_000));
            }),
          ),
          BRIEF_MS,
        )
      ).hosts[0]!.tls.error?.code,
    ).toMatch(/tls|reset|protocol|timeout/);
  });
  it('drips its handshake', async () => {
    expect(
      (
        await auditAt(
          await raw((s) => {
            const t = setInterval(() => {
              if (s.destroyed) clearInterval(t);
              else s.write(Buffer.from([22]));
            }, 50);
          }),
          BRIEF_MS,
        )
      ).hosts[0]!.tls.error,
    ).toBeDefined();
  });
  it('is closed', async () => {
    expect((await auditAt(9)).hosts[0]!.tls.error?.code).toBe('refused');
  });
  it('speaks TLS 1.3 only', async () => {
    const e = await auditAt(await secure({ ...made('only13', ...EC, ...SAN), minVersion: 'TLSv1.3' }));
    expect(e.hosts[0]!.tls).toMatchObject({ protocol: 'TLSv1.3', oldProtocols: { accepted: [] } });
  });
  it('still takes TLS 1.0 and 1.1', async () => {
    const e = await auditAt(
      await secure({
        ...made('old', '-newkey', 'rsa:2048', ...SAN),
        minVersion: 'TLSv1',
        ciphers: 'DEFAULT@SECLEVEL=0',
      }),
    );
    expect(e.hosts[0]!.tls.oldProtocols?.accepted).toEqual(['TLSv1', 'TLSv1.1']);
  });
  it('speaks nothing newer than TLS 1.1: refused by us, and seen as old', async () => {
    const e = await auditAt(
      await secure({
        ...made('oldonly', '-newkey', 'rsa:2048', ...SAN),
        minVersion: 'TLSv1',
        maxVersion: 'TLSv1.1',
        ciphers: 'DEFAULT@SECLEVEL=0',
      }),
    );
    expect(e.hosts[0]!.tls.error?.code).toBe('tls');
    expect(e.hosts[0]!.tls.oldProtocols?.accepted).toEqual(['TLSv1', 'TLSv1.1']);
  });
  const speaksTwo = async (): Promise<number> => {
    const http2 = await import('node:http2');
    const server = http2.createSecureServer({ ...made('h2', ...EC, ...SAN), allowHTTP1: false });
    server.on('stream', (stream) => {
      stream.respond({ ':status': 200, 'content-type': 'text/html' });
      stream.end('<!doctype html><title>Two</title><p>words');
    });
    server.on('error', () => {});
    server.on('tlsClientError', () => {});
    server.on('sessionError', () => {});
    closers.push(() => server.close());
    await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
    return (server.address() as AddressInfo).port;
  };
  /** Passes on what offers h2, and cuts off everything else without a word (RFC 7301 3.2 asks for an alert). */
  const cutsOffOthers = async (): Promise<number> => {
    const { connect } = await import('node:net');
    const behind = await speaksTwo();
    return servers.tcp((socket) => {
      socket.once('data', (hello) => {
        if (!hello.includes('\x02h2', 0, 'latin1')) {
          socket.destroy();
          return;
        }
        const inner = connect(behind, '127.0.0.1');
        inner.on('error', () => socket.destroy());
        socket.on('close', () => inner.destroy());
        inner.write(hello);
        socket.pipe(inner).pipe(socket);
      });
    });
  };
  it.each([
    ['speaks HTTP/2 only', speaksTwo],
    ['speaks HTTP/2 only, and cuts off what is older', cutsOffOthers],
  ])('%s', async (_, serve) => {
    const e = await auditAt(await serve());
    expect(e.pages[0]!.facts?.titles[0]?.text).toBe('Two');
    expect(e.pages[0]!.chain.hops[0]!.httpVersion).toBe('2');
  });
});
