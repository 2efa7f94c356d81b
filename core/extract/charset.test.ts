import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import indexes from 'text-encoding/lib/encoding-indexes.js';
import { decodeText, decodeXml, prescan, sniffCharset } from './charset';

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
    ['<?xml version="1.0" encoding="koi8-r"?><meta charset=utf-8>', 'utf-8'],
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
  it.each<[string, string, string, string, string]>([
    ['a declaration in HTML', '<?xml version="1.0" encoding="koi8-r"?><p>', 'text/html', 'koi8-r', 'meta'],
    ['in single quotes', "<?xml version='1.0' encoding='KOI8-R'?><p>", 'text/html', 'koi8-r', 'meta'],
    [
      'of no encoding',
      '<?xml version="1.0" encoding="nonsense"?><p>',
      'text/html',
      'windows-1252',
      'default',
    ],
    ['UTF-16 in what reads as bytes', '<?xml encoding="utf-16"?><p>', 'text/html', 'utf-8', 'meta'],
    ['not at the start', ' <?xml encoding="koi8-r"?><p>', 'text/html', 'windows-1252', 'default'],
    ['XHTML without a word', '<html/>', 'application/xhtml+xml', 'utf-8', 'default'],
    [
      'XHTML, whose metas do not count',
      '<meta charset="koi8-r"/>',
      'application/xhtml+xml',
      'utf-8',
      'default',
    ],
    [
      'XHTML by its declaration',
      '<?xml version="1.0" encoding="koi8-r"?>',
      'application/xhtml+xml',
      'koi8-r',
      'meta',
    ],
    ['XHTML by its header', '<html/>', 'application/xhtml+xml; charset=koi8-r', 'koi8-r', 'header'],
  ])('%s (HTML, "get an XML encoding"; XML 1.0 4.3.3)', (_, source, type, label, from) => {
    expect(sniffCharset(bytes(source), type)).toEqual({ label, from });
  });
  it('XML is UTF-8 where nothing says otherwise, whatever its type (XML 1.0 4.3.3)', () => {
    expect(decodeXml(bytes('<a>\xc3\xa4</a>'), 'application/xml')).toBe('<a>ä</a>');
    expect(decodeXml(bytes('<?xml version="1.0" encoding="iso-8859-1"?><a>\xe4</a>'))).toContain('ä');
    expect(decodeXml(Uint8Array.of(0x3c, 0, 0x3f, 0, 0x61, 0))).toBe('<?a');
  });
  it('decodes, with broken bytes marked', () => {
    expect(decodeText(bytes('\xe4'), 'text/html; charset=iso-8859-1').text).toBe('ä');
    expect(decodeText(bytes('\xe4'), 'text/html; charset=utf-8').text).toBe('\ufffd');
    expect(decodeText(Uint8Array.of(0xfe, 0xff, 0, 0x41))).toMatchObject({ text: 'A', charset: 'utf-16be' });
  });
});

/** Bytes of a pointer of a two-byte encoding, as its decoder reads them (Encoding standard, 10 to 13). */
const BYTES: Record<string, [index: string, bytes: (pointer: number) => number[]]> = {
  gbk: ['gb18030', (p) => [Math.floor(p / 190) + 0x81, (p % 190) + (p % 190 < 0x3f ? 0x40 : 0x41)]],
  gb18030: ['gb18030', (p) => [Math.floor(p / 190) + 0x81, (p % 190) + (p % 190 < 0x3f ? 0x40 : 0x41)]],
  big5: ['big5', (p) => [Math.floor(p / 157) + 0x81, (p % 157) + (p % 157 < 0x3f ? 0x40 : 0x62)]],
  'euc-kr': ['euc-kr', (p) => [Math.floor(p / 190) + 0x81, (p % 190) + 0x41]],
  'euc-jp': ['jis0208', (p) => [Math.floor(p / 94) + 0xa1, (p % 94) + 0xa1]],
  'euc-jp, three bytes': ['jis0212', (p) => [0x8f, Math.floor(p / 94) + 0xa1, (p % 94) + 0xa1]],
  shift_jis: [
    'jis0208',
    (p) => {
      const lead = Math.floor(p / 188);
      const trail = p % 188;
      return [lead + (lead < 0x1f ? 0x81 : 0xc1), trail + (trail < 0x3f ? 0x40 : 0x41)];
    },
  ],
  'iso-2022-jp': [
    'jis0208',
    (p) => [0x1b, 0x24, 0x42, Math.floor(p / 94) + 0x21, (p % 94) + 0x21, 0x1b, 0x28, 0x42],
  ],
};
const tables = indexes['encoding-indexes'];
const decoded = (label: string, given: number[]): string =>
  decodeText(Uint8Array.from(given), `text/html; charset=${label.split(',')[0]}`).text;
const single = Object.keys(tables).filter((name) => tables[name]!.length === 128);

describe('every legacy encoding by the standard’s own indexes (Encoding standard, index-*.txt)', () => {
  it('there are as many of one byte as the standard has', () => {
    // x-mac-cyrillic and windows-1252 among them; iso-8859-8-i shares an index
    expect(single).toHaveLength(27);
  });
  it.each(single)('%s', (label) => {
    const wrong = tables[label]!.flatMap((code, i) => {
      const wanted = code === null ? '\ufffd' : String.fromCodePoint(code);
      return decoded(label, [0x41, 0x80 + i]) === `A${wanted}` ? [] : [0x80 + i];
    });
    expect(wrong).toEqual([]);
  });
  it.each(Object.keys(BYTES))('%s', (label) => {
    const [index, bytesOf] = BYTES[label]!;
    const wrong = tables[index]!.flatMap((code, pointer) => {
      // eighteen that were in private use then have code points of their own since GB 18030-2022
      const isMoved = index === 'gb18030' && code !== null && code >= 0xe000 && code <= 0xf8ff;
      if (code === null || isMoved || !reaches(label, pointer)) return [];
      const found = decoded(label, [...bytesOf(pointer), 0x41]);
      return found === `${String.fromCodePoint(code)}A` ? [] : [pointer];
    });
    expect(wrong).toEqual([]);
  });
});

/** ISO-2022-JP and EUC-JP reach the first 94 rows only. */
function reaches(label: string, pointer: number): boolean {
  if (label === 'shift_jis') return pointer < 8836 || pointer > 10_715;
  return !/jp/.test(label) || pointer < 94 * 94;
}
