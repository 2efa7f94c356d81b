/**
 * Registrable domains against npm psl, another reader of the public suffix list, and the list's own test
 * cases (publicsuffix.org, from memory).
 */
import fc from '../property';
import psl from 'psl';
import { describe, expect, it } from 'vitest';
import { registrableDomain } from '#core/extract/address';

describe('the public suffix list', () => {
  it.each<[string, string | null]>([
    ['example.com', 'example.com'],
    ['b.example.com', 'example.com'],
    ['a.b.example.com', 'example.com'],
    ['com', null],
    ['domain.biz', 'domain.biz'],
    ['b.domain.biz', 'domain.biz'],
    ['uk.com', null],
    ['example.uk.com', 'example.uk.com'],
    ['a.b.example.uk.com', 'example.uk.com'],
    ['test.ac', 'test.ac'],
    ['co.jp', null],
    ['test.co.jp', 'test.co.jp'],
    ['test.kyoto.jp', 'test.kyoto.jp'],
    ['ide.kyoto.jp', null],
    ['b.ide.kyoto.jp', 'b.ide.kyoto.jp'],
    ['c.kobe.jp', null],
    ['b.c.kobe.jp', 'b.c.kobe.jp'],
    ['city.kobe.jp', 'city.kobe.jp'],
    ['www.city.kobe.jp', 'city.kobe.jp'],
    ['ck', null],
    ['test.ck', null],
    ['b.test.ck', 'b.test.ck'],
    ['www.ck', 'www.ck'],
    ['www.www.ck', 'www.ck'],
    ['test.k12.ak.us', 'test.k12.ak.us'],
    ['xn--85x722f.com.cn', 'xn--85x722f.com.cn'],
    ['www.xn--85x722f.xn--55qx5d.cn', 'xn--85x722f.xn--55qx5d.cn'],
  ])('%s: %s', (host, domain) => {
    expect(registrableDomain(host)).toBe(domain);
  });
  const label = fc.constantFrom('a', 'www', 'shop', 'kites');
  // suffixes that both copies of the list have had for years; the private part changes too often to compare
  const suffix = fc.constantFrom(
    'com',
    'org',
    'co.uk',
    'org.uk',
    'example',
    'de',
    'fr',
    'com.au',
    'co.jp',
    'kyoto.jp',
    'kobe.jp',
    'ck',
    'no',
    'oslo.no',
    'nz',
    'co.nz',
    'us',
    'ak.us',
    'ac.at',
    'pt',
    'com.pt',
  );
  it('two readers come to the same domain', () => {
    fc.assert(
      fc.property(fc.array(label, { maxLength: 3 }), suffix, (labels, end) => {
        const host = [...labels, end].join('.');
        expect(registrableDomain(host), host).toBe(psl.get(host));
      }),
      { numRuns: 3000 },
    );
  });
});
