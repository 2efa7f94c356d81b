/** The stand-ins and the probe against tools from outside the project: dig, openssl and curl. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Dialer } from '#probe/dialer';
import { probeTls, TrustStore } from '#probe/tls';
import { startPracticeNet, type PracticeNet } from '../../net/practice-net';

let net: PracticeNet;
let ca: string;
beforeAll(async () => {
  net = await startPracticeNet({ planted: false });
  ca = join(mkdtempSync(join(tmpdir(), 'armband-ca-')), 'ca.pem');
  writeFileSync(ca, net.caPem);
});
afterAll(() => net.close());

/** Runs a command without blocking the servers of this process. */
async function run(command: string, args: string[], input = ''): Promise<string> {
  const { spawn } = await import('node:child_process');
  return new Promise((resolve, reject) => {
    const child = spawn(command, args);
    let out = '';
    child.stdout.on('data', (d) => {
      out += String(d);
    });
    child.stderr.on('data', (d) => {
      out += String(d);
    });
    child.on('error', reject);
    child.on('close', () => resolve(out));
    child.stdin.end(input);
  });
}
const dig = (port: number, ...args: string[]) =>
  run('dig', [
    '@127.0.0.1',
    '-p',
    String(port),
    '+noall',
    '+answer',
    '+comments',
    '+time=2',
    '+tries=1',
    ...args,
  ]);

describe('dig', () => {
  it.each([
    ['tarn-planetarium.example', 'A'],
    ['www.tarn-planetarium.example', 'CNAME'],
    ['tarn-planetarium.example', 'MX'],
    ['tarn-planetarium.example', 'TXT'],
    ['tarn-planetarium.example', 'NS'],
    ['tarn-planetarium.example', 'SOA'],
    ['nothing.tarn-planetarium.example', 'A'],
  ])('and the probe read the same for %s %s', async (name, type) => {
    const dialer = new Dialer({ resolvers: [net.resolver], map: net.map });
    const ours = await dialer.lookup(name, type);
    const theirs = await dig(net.ports.resolver, name, type);
    expect(theirs).toContain(`status: ${ours.rcode}`);
    const lines = theirs
      .split('\n')
      .filter((l) => l && !l.startsWith(';'))
      .map((l) => l.split(/\s+/))
      .map(
        ([n, ttl, , t, ...value]) =>
          `${n!.replace(/\.$/, '')} ${ttl} ${t} ${value.join(' ').replace(/\.(?= |$)/g, '')}`,
      )
      .sort();
    expect(ours.records.map((r) => `${r.name} ${r.ttl} ${r.type} ${r.value}`).sort()).toEqual(lines);
  });
  it('sees authority at the name servers, TCP, and a refusal of strange zones', async () => {
    expect(await dig(net.ports.ns1, 'tarn-planetarium.example', 'A')).toMatch(/flags: qr aa/);
    expect(await dig(net.ports.ns2, 'tarn-planetarium.example', 'A', '+tcp')).toContain('192.0.2.10');
    expect(await dig(net.ports.ns1, 'strange.test', 'A')).toContain('status: REFUSED');
  });
});

describe('openssl', () => {
  const verify = (host: string) =>
    run('openssl', [
      's_client',
      '-connect',
      `127.0.0.1:${net.ports.https}`,
      '-servername',
      host,
      '-CAfile',
      ca,
      '-verify_hostname',
      host,
      '-showcerts',
    ]);
  const ours = (host: string) =>
    probeTls(
      {
        dialer: new Dialer({ resolvers: [net.resolver], map: net.map }),
        store: new TrustStore([net.caPem]),
        fetchIssuer: () => Promise.resolve(undefined),
      },
      host,
      443,
    );
  it.each([
    [undefined, 0, true],
    ['expired', 10, false],
    ['self-signed', 18, false],
    ['no-intermediate', 21, false],
  ] as const)('and the probe come to the same verdict (%s)', async (fault, code, trusted) => {
    if (fault) net.switches.set('planetarium', 'live', fault, true);
    try {
      const theirs = await verify('tarn-planetarium.example');
      const mine = await ours('tarn-planetarium.example');
      expect(theirs).toMatch(
        new RegExp(
          `(Verify return code|Verification error|verify error:num=)[:= ]*${code ? `(${code}|[a-z])` : '0'}`,
        ),
      );
      expect(mine.trusted).toBe(trusted);
      expect(mine.chain).toHaveLength(
        theirs.split('-----BEGIN CERTIFICATE-----').length -
          1 -
          (theirs.match(/Server certificate\n-----BEGIN/) ? 1 : 0) || 1,
      );
      expect(mine.protocol).toBe('TLSv1.3');
      const pem = /-----BEGIN CERTIFICATE-----[\s\S]*?-----END CERTIFICATE-----/.exec(theirs)![0];
      const text = execFileSync(
        'openssl',
        ['x509', '-noout', '-fingerprint', '-sha256', '-ext', 'subjectAltName'],
        { input: pem },
      ).toString();
      expect(text).toContain(mine.chain[0]!.fingerprint256);
      for (const name of mine.chain[0]!.names) expect(text).toContain(`DNS:${name}`);
      const whole = execFileSync('openssl', ['x509', '-noout', '-text'], { input: pem }).toString();
      expect(/Signature Algorithm: (\S+)/.exec(whole)![1]!.toLowerCase()).toBe(
        mine.chain[0]!.signature.toLowerCase(),
      );
      expect(/Public-Key: \((\d+) bit\)/.exec(whole)![1]).toBe(String(mine.chain[0]!.keyBits));
    } finally {
      if (fault) net.switches.set('planetarium', 'live', fault, false);
    }
  });
});

describe('curl', () => {
  it('follows the redirects to the same place, over a certificate it trusts', async () => {
    const out = await run('curl', [
      '-sS',
      '-L',
      '--cacert',
      ca,
      '--connect-to',
      `::127.0.0.1:${net.ports.https}`,
      '-o',
      '/dev/null',
      '-w',
      '%{http_code} %{url_effective} %{num_redirects}',
      'https://www.tarn-planetarium.example/about/?x=1',
    ]);
    expect(out).toBe('200 https://tarn-planetarium.example/about/?x=1 1');
  });
});
