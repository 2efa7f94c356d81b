import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { decodeText, prescan, sniffCharset } from './charset';

const bytes = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));

describe('prescan (HTML standard, "prescan a byte stream to determine its encoding")', () => {
  it.each([
    ['<meta charset=utf-8>', 'utf-8'],
    ['<META CHARSET="ISO-8859-15">', 'iso-8859-15'],
    ['<meta http-equiv="Content-Type" content="text/html; charset=koi8-r">', 'koi8-r'],
    ['<meta content="text/html; charset=koi8-r" http-equiv=content-type>', 'koi8-r'],
    ['<!-- <meta charset=koi8-r> --><meta charset=utf-8>', 'utf-8'],
    ['<title a="<meta charset=koi8-r>"></title><meta charset=utf-8>', 'utf-8'],
    ['<meta charset="utf-16">', 'utf-8'],
    ['<meta charset=x-user-defined>', 'windows-1252'],
    ['<meta charset=no-such-thing><meta charset=utf-8>', 'utf-8'],
    ['<?xml version="1.0"?><meta/charset=utf-8 />', 'utf-8'],
    ['<meta charset=koi8-r charset=utf-8>', 'koi8-r'],
  ])('%s', (html, label) => {
    expect(prescan(bytes(html))).toBe(label);
  });
  it.each([
    ['content without the pragma', '<meta name=x content="text/html; charset=koi8-r">'],
    ['beyond 1024 bytes', `${' '.repeat(1024)}<meta charset=utf-8>`],
    ['within a comment that does not end', '<!-- <meta charset=utf-8>'],
    ['a charset that is named in a text', 'charset=utf-8'],
    ['metadata is another element', '<metadata charset=utf-8>'],
  ])('nothing from %s', (_, html) => {
    expect(prescan(bytes(html))).toBeUndefined();
  });
  it('never throws or hangs', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 1200 }), (b) => {
        decodeText(b);
      }),
    );
    fc.assert(
      fc.property(fc.stringMatching(/^[<meta !\-charset="'=/>]{0,300}$/), (s) => {
        prescan(bytes(s));
      }),
    );
  });
});

describe('what wins', () => {
  it('the BOM over the header, the header over the meta', () => {
    expect(sniffCharset(bytes('\xef\xbb\xbf<meta charset=koi8-r>'), 'text/html; charset=iso-8859-1')).toEqual(
      { label: 'utf-8', from: 'bom' },
    );
    expect(sniffCharset(bytes('<meta charset=koi8-r>'), 'text/html; charset="UTF-8"')).toEqual({
      label: 'utf-8',
      from: 'header',
    });
    expect(sniffCharset(bytes('<meta charset=koi8-r>'), 'text/html; charset=no-such-thing')).toEqual({
      label: 'koi8-r',
      from: 'meta',
    });
    expect(sniffCharset(bytes('<p>'), 'text/html')).toEqual({ label: 'windows-1252', from: 'default' });
  });
  it('decodes, with broken bytes marked', () => {
    expect(decodeText(bytes('\xe4'), 'text/html; charset=iso-8859-1').text).toBe('ä');
    expect(decodeText(bytes('\xe4'), 'text/html; charset=utf-8').text).toBe('\ufffd');
    expect(decodeText(Uint8Array.of(0xfe, 0xff, 0, 0x41))).toMatchObject({ text: 'A', charset: 'utf-16be' });
  });
});
