/** Addresses against whatwg-url, the reference implementation of the URL standard in JavaScript. */
import fc from '../property';
import { URL as Reference } from 'whatwg-url';
import { describe, expect, it } from 'vitest';
import { asciiHost, normaliseUrl, resolveAddress } from '#core/extract/address';

const theirs = (reference: string, base?: string): string | undefined => {
  try {
    return new Reference(reference, base).href;
  } catch {
    return undefined;
  }
};
const normal = (reference: string, base?: string): string | undefined => {
  try {
    const u = new Reference(reference, base);
    if (!/^https?:$/.test(u.protocol)) return undefined;
    u.hash = '';
    u.username = '';
    u.password = '';
    return u.href;
  } catch {
    return undefined;
  }
};
const BASES = [
  'https://a.example/',
  'https://a.example/b/c',
  'http://www.a.example:8080/b/?q#f',
  'https://xn--bcher-kva.example/x/y/z',
];
// no broken A-labels among them: the standard came to let them through after Node 20
const pieces = [
  'https://',
  'http://',
  '//',
  '/',
  '.',
  '..',
  './',
  '../',
  '?',
  '#',
  '@',
  ':',
  'a',
  'B',
  'bücher',
  '.example',
  '%2e',
  '%zz',
  '%C3%BC',
  'ü',
  ' ',
  '\t',
  '\\',
  '[::1]',
  '127.1',
  '0x7f',
  '80',
  '443',
  '~',
  '_',
  '-',
  ';',
  '=',
  '&',
  '|',
  '"',
  '<',
  '漢',
  'mailto:',
  'javascript:',
];
const address = fc.array(fc.constantFrom(...pieces), { maxLength: 8 }).map((p) => p.join(''));

describe('the URL standard', () => {
  // opaque addresses (javascript:, mailto:) are left out: the standard changed how their final spaces are
  // written after Node 20
  it('references resolve to the same address', () => {
    fc.assert(
      fc.property(address, fc.constantFrom(...BASES), (ref, base) => {
        const reference = theirs(ref, base);
        fc.pre(reference === undefined || /^https?:/.test(reference));
        expect(resolveAddress(ref, base)).toBe(reference);
      }),
      {
        numRuns: 6000,
        examples: [
          ['https://https://.examplehttps://./', BASES[0]!],
          ['//.x/../', BASES[0]!],
          ['/b//.c/%2e/d/..', BASES[1]!],
        ],
      },
    );
  });
  it('addresses are normalised to the same form', () => {
    fc.assert(
      fc.property(address, fc.constantFrom(...BASES), (ref, base) => {
        expect(normaliseUrl(ref, base)).toBe(normal(ref, base));
      }),
      { numRuns: 6000 },
    );
  });
  it('hosts have the same A-label', () => {
    for (const host of [
      'Bücher.example',
      'straße.example',
      'ΣΊΓΜΑ.example',
      '例え.example',
      'a.EXAMPLE.',
      'xn--bcher-kva.example',
    ])
      expect(asciiHost(host)).toBe(new Reference(`http://${host.replace(/\.$/, '')}/`).hostname);
  });
});
