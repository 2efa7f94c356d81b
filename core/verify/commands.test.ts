/** Commands that show a finding elsewhere: what they ask, and that nothing hostile gets out of its quotes. */
import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { checkById } from '#core/checks/catalogue/index';
import { dnsAnswer, evidence, withAnswers } from '#core/checks/example-evidence';
import fc from '../../tests/property';
import { commandsFor } from './commands';
import { shellLine, shellWord } from './shell';

const Z = 'marsh-choir.example';
const lines = (check: string, place: string, e = evidence()): string[] =>
  commandsFor(checkById.get(check)!, place, e).map((c) => c.line);

describe('the commands of a place', () => {
  it('a record: each server that was asked, the zone’s own first', () => {
    const e = withAnswers(
      dnsAnswer(`_dmarc.${Z}`, 'TXT', []),
      dnsAnswer(`_dmarc.${Z}`, 'TXT', [], { role: 'authority', server: '[2001:db8::53]:53' }),
    );
    expect(lines('domain.dmarc', `_dmarc.${Z}`, e)).toEqual([
      `dig @2001:db8::53 -q _dmarc.${Z} -t TXT +norecurse`,
      `dig @127.0.0.1 -q _dmarc.${Z} -t TXT +recurse`,
    ]);
  });
  it('a host’s certificate: the address that was asked, and the name', () => {
    const e = evidence();
    e.hosts[0]!.tls.address = '192.0.2.20';
    const host = e.hosts[0]!.host;
    expect(lines('https.certificate-valid', host, e)).toContain(
      `openssl s_client -connect 192.0.2.20:443 -servername ${host} -verify_hostname ${host} -showcerts </dev/null`,
    );
  });
  it('a page: the method, the name under which was asked, and the address', () => {
    const e = evidence();
    const [page] = e.pages;
    page!.chain.hops[0]!.address = '192.0.2.20:443';
    const [line] = lines('metadata.title-present', page!.url, e);
    expect(line).toContain(`--resolve ${Z}:443:192.0.2.20`);
    expect(line).toMatch(/^curl --silent --show-error --globoff --dump-header - --output \/dev\/null /);
  });
  it.each([
    ['credentials', '--user USER:PASSWORD'],
    ['cookie', '--cookie NAME=VALUE'],
    ['parameter', '--get --data NAME=VALUE'],
  ] as const)('access by %s stays a placeholder', (wayIn, placeholder) => {
    const e = evidence();
    e.target.wayIn = wayIn;
    expect(lines('metadata.title-present', e.pages[0]!.url, e)[0]).toContain(placeholder);
  });
  it('a manual check has none', () => {
    expect(lines('delivery.backup', Z)).toEqual([]);
  });
});

describe('what goes into a shell', () => {
  it.each([['a\nb'], ['\u001b[201~rm'], ['ä'], ['\u0000']])('%j is not offered at all', (text) => {
    expect(shellWord(text)).toBeUndefined();
    expect(shellLine(['curl', text])).toBeUndefined();
  });
  it('any other text comes out of a real sh as it went in', () => {
    const words = fc.array(
      fc.string({ unit: fc.integer({ min: 0x20, max: 0x7e }).map((c) => String.fromCharCode(c)) }),
      {
        minLength: 1,
        maxLength: 8,
      },
    );
    fc.assert(
      fc.property(words, (given) => {
        const line = shellLine(['printf', '%s\\n', ...given])!;
        expect(execFileSync('/bin/sh', ['-c', line], { encoding: 'utf8' })).toBe(`${given.join('\n')}\n`);
      }),
      { numRuns: 150 },
    );
  });
  it('hostile names and addresses stay one word each', () => {
    const hostile = ["a'; rm -rf /; '", '$(id)', '`id`', '-oProxyCommand=x', '&& id', 'a b', '*', '~root'];
    for (const text of hostile) {
      const out = execFileSync('/bin/sh', ['-c', `printf '%s' ${shellWord(text)!}`], { encoding: 'utf8' });
      expect(out).toBe(text);
    }
  });
});
