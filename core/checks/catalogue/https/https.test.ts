import { describe, expect, it } from 'vitest';
import type { TlsEvidence } from '#core/facts/evidence';
import {
  AT,
  ask,
  brokenChain,
  chain,
  evidence,
  exchange,
  host,
  page,
  withPages,
} from '#core/checks/example-evidence';
import { nameMatches } from '#core/facts/certificate';
import { hstsMaxAge } from './hsts';

const main = 'marsh-choir.example';
const withHost = (more: Parameters<typeof host>[1]) =>
  evidence({ hosts: [host(main, more), host(`www.${main}`)] });
const withTls = (more: Partial<TlsEvidence>) => withHost({ tls: { ...host(main).tls, ...more } });
const leaf = host(main).tls.chain[0]!;

describe('https.certificate-names', () => {
  // RFC 9525 6.3 and its examples in section 6.3 (wildcards), RFC 6125 6.4.3 for the older ones
  it.each([
    ['www.example.com', 'www.example.com', true],
    ['WWW.Example.COM', 'www.example.com', true],
    ['*.example.com', 'www.example.com', true],
    ['*.example.com', 'example.com', false],
    ['*.example.com', 'a.b.example.com', false],
    ['f*.example.com', 'foo.example.com', false],
    ['*.com', 'example.com', false],
    ['www.*.example.com', 'www.a.example.com', false],
    ['*', 'example', false],
    ['example.com', 'www.example.com', false],
  ])('%s covers %s: %s', (san, name, expected) => {
    expect(nameMatches(san, name)).toBe(expected);
  });
  it('ignores the common name', () => {
    expect(
      ask('https.certificate-names', {
        evidence: withTls({ chain: [{ ...leaf, subject: `CN=${main}`, names: [] }] }),
      }),
    ).toMatchObject({ outcome: 'failed', places: [{ found: 'no SAN at all' }, { outcome: 'passed' }] });
  });
});

describe('https.hsts', () => {
  // RFC 6797 6.2, the examples there
  it.each([
    ['max-age=31536000', 31_536_000],
    ['max-age=15768000 ; includeSubDomains', 15_768_000],
    ['max-age="31536000"', 31_536_000],
    ['max-age=0', 0],
    ['Max-Age=10', 10],
    ['includeSubDomains', null],
    ['max-age=1; max-age=2', null],
    ['max-age=x', null],
  ])('%s: %s', (value, expected) => {
    expect(hstsMaxAge(value)).toBe(expected);
  });
  const sent = (value: string[]) =>
    ask('https.hsts', {
      evidence: withHost({
        https: chain(
          [`https://${main}/`],
          200,
          value.map((v) => ['strict-transport-security', v]),
        ),
      }),
    }).outcome;
  it('asks for at least 15,552,000 s, and the first header counts', () => {
    expect(sent(['max-age=15552000'])).toBe('passed');
    expect(sent(['max-age=15551999'])).toBe('failed');
    expect(sent(['max-age=1', 'max-age=31536000'])).toBe('failed');
    expect(sent([])).toBe('failed');
  });
});

describe('https.certificate-valid and -days', () => {
  const days = (left: number, lifetime = 90) =>
    ask('https.certificate-days', {
      evidence: withTls({
        chain: [
          {
            ...leaf,
            notAfter: new Date(AT.getTime() + left * 86_400_000).toISOString(),
            notBefore: new Date(AT.getTime() + (left - lifetime) * 86_400_000).toISOString(),
          },
        ],
      }),
    }).outcome;
  it('21 days, or a quarter of a short lifetime', () => {
    expect(days(21)).toBe('passed');
    expect(days(20.9)).toBe('failed');
    expect(days(2.5, 10)).toBe('passed');
    expect(days(2.4, 10)).toBe('failed');
  });
  it('judges the dates by the time given', () => {
    expect(ask('https.certificate-valid').outcome).toBe('passed');
    expect(ask('https.certificate-valid', { at: new Date('2027-02-01') })).toMatchObject({
      outcome: 'failed',
    });
    expect(ask('https.certificate-days', { at: new Date('2027-02-01') }).outcome).toBe('cantTell');
  });
  it('an unknown issuer fails, a missing intermediate does not', () => {
    expect(
      ask('https.certificate-valid', {
        evidence: withTls({ trusted: false, trustError: 'DEPTH_ZERO_SELF_SIGNED_CERT' }),
      }),
    ).toMatchObject({ outcome: 'failed', found: '1 of 2 hosts: self-signed' });
    const open = withTls({
      trusted: false,
      trustError: 'UNABLE_TO_VERIFY_LEAF_SIGNATURE',
      completedChain: true,
    });
    expect(ask('https.certificate-valid', { evidence: open }).outcome).toBe('passed');
    expect(ask('https.certificate-chain', { evidence: open }).outcome).toBe('failed');
  });
});

describe('https.answers', () => {
  const url = `https://${main}/`;
  const answered = (status: number, situation: 'live' | 'staging' | 'holding' = 'live') =>
    ask('https.answers', {
      situation,
      evidence: evidence({ hosts: [host(main, { https: chain([url], status) })] }),
    }).outcome;
  it('below 500 passes; 503 for a holding page only; a refusal of staging is fine', () => {
    expect(answered(404)).toBe('passed');
    expect(answered(500)).toBe('failed');
    expect(answered(503, 'holding')).toBe('passed');
    expect(answered(503)).toBe('failed');
    expect(answered(401, 'staging')).toBe('passed');
    expect(answered(403)).toBe('cantTell');
  });
  it('silence fails, unless only certain addresses may enter', () => {
    const e = evidence({ hosts: [host(main, { https: brokenChain(url, 'timeout', 'no answer in time') })] });
    expect(ask('https.answers', { evidence: e }).outcome).toBe('failed');
    expect(
      ask('https.answers', { evidence: { ...e, target: { ...e.target, wayIn: 'addresses' } } }).outcome,
    ).toBe('cantTell');
  });
});

describe('redirects from http', () => {
  it('must lead to https, permanently', () => {
    expect(
      ask('https.http-redirects', { evidence: withHost({ http: chain([`http://${main}/`]) }) }),
    ).toMatchObject({ outcome: 'failed' });
    expect(
      ask('https.http-redirects', { evidence: withHost({ http: brokenChain(`http://${main}/`, 'refused') }) })
        .outcome,
    ).toBe('failed');
    expect(
      ask('https.http-redirects', { evidence: withHost({ http: brokenChain(`http://${main}/`, 'timeout') }) })
        .outcome,
    ).toBe('cantTell');
    expect(
      ask('https.permanent-redirects', {
        evidence: withHost({ http: chain([`http://${main}/`, `https://${main}/`], 200, undefined, 302) }),
      }),
    ).toMatchObject({ outcome: 'failed' });
    expect(
      ask('https.permanent-redirects', {
        evidence: withHost({ http: chain([`http://${main}/`, `https://${main}/`], 200, undefined, 308) }),
      }).outcome,
    ).toBe('passed');
  });
  it('a recipe names the host', () => {
    expect(
      ask('https.http-redirects', {
        evidence: withHost({ http: { start: '', hops: [exchange(`http://${main}/`, 200)], end: 'answer' } }),
      }).recipe!.paste![0]!.text,
    ).toContain(`server_name ${main}`);
  });
});

describe('https.no-mixed-content', () => {
  const judged = (body: string, head = '') =>
    ask('https.no-mixed-content', {
      evidence: withPages(page({ url: `https://${main}/`, via: 'home', body, head })),
    }).outcome;
  it('what browsers block fails; pictures are upgraded; a policy may upgrade all', () => {
    expect(judged('<script src="http://x.example/a.js"></script>')).toBe('failed');
    expect(judged('<img src="http://x.example/a.png">')).toBe('passed');
    expect(judged('<img srcset="http://x.example/a.png 2x">')).toBe('failed');
    expect(
      judged(
        '<script src="http://x.example/a.js"></script>',
        '<meta http-equiv="Content-Security-Policy" content="upgrade-insecure-requests">',
      ),
    ).toBe('passed');
  });
});
