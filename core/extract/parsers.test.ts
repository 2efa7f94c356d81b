import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { asciiHost, insideBase, normaliseUrl, registrableDomain } from './address';
import { decodeText, sniffCharset } from './charset';
import { parseSitemap, SITEMAP_NAMESPACE } from './sitemap';

describe('sitemaps (sitemaps.org 0.9)', () => {
  it('reads the protocol’s own example', () => {
    // https://www.sitemaps.org/protocol.html, "Sample XML Sitemap", two of its entries
    const f = parseSitemap(
      '<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n<url><loc>http://www.example.com/</loc><lastmod>2005-01-01</lastmod><changefreq>monthly</changefreq><priority>0.8</priority></url><url><loc>http://www.example.com/catalog?item=12&amp;desc=vacation_hawaii</loc></url></urlset>',
    );
    expect(f).toEqual({
      kind: 'urlset',
      namespace: 'http://www.sitemaps.org/schemas/sitemap/0.9',
      count: 2,
      urls: [
        { loc: 'http://www.example.com/', lastmod: '2005-01-01' },
        { loc: 'http://www.example.com/catalog?item=12&desc=vacation_hawaii' },
      ],
    });
  });
  it('reads index files and the text form', () => {
    expect(
      parseSitemap('<sitemapindex><sitemap><loc>https://a.example/1.xml</loc></sitemap></sitemapindex>'),
    ).toMatchObject({ kind: 'index', urls: [{ loc: 'https://a.example/1.xml' }] });
    expect(parseSitemap('https://a.example/\nhttps://a.example/b\n', 'text/plain')).toMatchObject({
      kind: 'text',
      count: 2,
    });
  });
  it.each([
    ['a prefix', '<s:urlset xmlns:s="http://www.sitemaps.org/schemas/sitemap/0.9"/>', SITEMAP_NAMESPACE],
    ['another namespace', '<urlset xmlns="http://www.example.com/0.84"/>', 'http://www.example.com/0.84'],
    ['none', '<urlset/>', ''],
  ])('knows its namespace: %s', (_, xml, namespace) => {
    expect(parseSitemap(xml).namespace).toBe(namespace);
  });
  it.each([
    ['prose', 'Nothing to see here', 'text/plain'],
    ['a word', 'ok', 'text/plain'],
    ['prose that begins with an address', 'https://a.example/ is our address', 'text/html'],
  ])('%s is no list of addresses', (_, text, type) => {
    expect(parseSitemap(text, type)).toMatchObject({ count: 0, error: expect.any(String) as string });
  });
  it('says why one is broken, and does not expand entities', () => {
    expect(parseSitemap('<urlset><url>').error).toBeTruthy();
    expect(parseSitemap('<html></html>').error).toBeTruthy();
    expect(
      parseSitemap(
        '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><urlset><url><loc>&b;</loc></url></urlset>',
      ).error,
    ).toBeTruthy();
    fc.assert(
      fc.property(fc.string(), (s) => {
        parseSitemap(s);
        parseSitemap(`<urlset>${s}`);
      }),
    );
  });
});

describe('encodings (Encoding standard; HTML, “determining the character encoding”)', () => {
  const bytes = (s: string) => new TextEncoder().encode(s);
  it('byte order mark, then header, then meta', () => {
    expect(sniffCharset(new Uint8Array([0xef, 0xbb, 0xbf]), 'text/html; charset=latin1')).toEqual({
      label: 'utf-8',
      from: 'bom',
    });
    expect(sniffCharset(bytes('<meta charset=utf-8>'), 'text/html; charset="ISO-8859-1"')).toEqual({
      label: 'iso-8859-1',
      from: 'header',
    });
    expect(sniffCharset(bytes('<meta http-equiv=content-type content="text/html; charset=utf-8">'))).toEqual({
      label: 'utf-8',
      from: 'meta',
    });
    expect(sniffCharset(bytes(`${' '.repeat(1024)}<meta charset=utf-8>`))).toEqual({
      label: 'windows-1252',
      from: 'default',
    });
    expect(sniffCharset(bytes('<!-- <meta charset=utf-8> -->')).from).toBe('default');
  });
  it('decodes by it, with a fallback for unknown labels', () => {
    expect(decodeText(new Uint8Array([0xe9]), 'text/html; charset=iso-8859-1').text).toBe('é');
    expect(decodeText(new Uint8Array([0xe9]), 'text/html; charset=klingon')).toMatchObject({
      text: 'é',
      charset: 'windows-1252',
    });
  });
});

describe('addresses (URL standard)', () => {
  it('compares hosts as A-labels', () => {
    expect(asciiHost('Bücher.example.')).toBe('xn--bcher-kva.example');
    expect(asciiHost('a b')).toBeUndefined();
    expect(asciiHost('a/b')).toBeUndefined();
  });
  it('normalises and drops fragments and credentials', () => {
    expect(normaliseUrl('HTTPS://me:pw@A.example:443/a/../b#c')).toBe('https://a.example/b');
    expect(normaliseUrl('mailto:a@b.example')).toBeUndefined();
  });
  it('stays inside a base path', () => {
    expect(insideBase('https://a.example/x/y', 'https://a.example/x/')).toBe(true);
    expect(insideBase('https://a.example/x', 'https://a.example/x/')).toBe(true);
    expect(insideBase('https://a.example/xy', 'https://a.example/x/')).toBe(false);
    expect(insideBase('https://b.example/x/', 'https://a.example/x/')).toBe(false);
  });
  // from the tests of publicsuffix.org (test_psl.txt)
  it.each([
    ['example.com', 'example.com'],
    ['b.example.com', 'example.com'],
    ['test.k12.ak.us', 'test.k12.ak.us'],
    ['www.test.k12.ak.us', 'test.k12.ak.us'],
    ['b.c.kobe.jp', 'b.c.kobe.jp'],
    ['www.city.kobe.jp', 'city.kobe.jp'],
    ['co.uk', null],
    ['a.b.example.uk.com', 'example.uk.com'],
  ])('the registrable domain of %s is %s', (host, expected) => {
    expect(registrableDomain(host)).toBe(expected);
  });
});
