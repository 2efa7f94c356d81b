import fc from '../../../tests/property';
import { describe, expect, it } from 'vitest';
import { splitAddress } from '#core/extract/address';
import { extractPage } from '#core/extract/html';
import { foldLoosely } from '#core/text/fold';
import { chain } from '#core/checks/example-evidence';
import { PageText } from './page-text';
import { ReadPage } from './read-page';
import { memoize } from '#core/remembering';
import { webAddress } from './web-address';

const URL_OF_PAGE = 'https://marsh.example/a/b?c=1';
function page(html: string): ReadPage {
  const facts = extractPage(html, URL_OF_PAGE);
  return new ReadPage(
    {
      url: URL_OF_PAGE,
      requested: URL_OF_PAGE,
      from: null,
      via: 'link',
      depth: 1,
      chain: chain([URL_OF_PAGE]),
      facts,
    },
    facts,
    new PageText(facts),
  );
}

describe('a page that was read', () => {
  it('knows where its links lead, without fragments; what is no web address is left out', () => {
    const p = page(
      '<a href="/x">1</a><a href="y#z">2</a><a href="https://firth.example/">3</a><a href="mailto:a@marsh.example">4</a><a href="https://marsh.example.other.example/">5</a>',
    );
    expect(p.facts.anchors.map((a) => p.target(a.href))).toEqual([
      'https://marsh.example/x',
      'https://marsh.example/a/y',
      'https://firth.example/',
      undefined,
      'https://marsh.example.other.example/',
    ]);
    expect(p.linksAway.map((l) => [l.url, l.host, l.anchor.text])).toEqual([
      ['https://firth.example/', 'firth.example', '3'],
      ['https://marsh.example.other.example/', 'marsh.example.other.example', '5'],
    ]);
  });
  it('its own short way to an address is the long way’s result', () => {
    const piece = fc.constantFrom(
      '/',
      'x',
      '?a=b',
      '#f',
      '..',
      '%20',
      'ü',
      'https://marsh.example/',
      'https://firth.example',
      '//',
      ':8443',
      '@',
      'mailto:',
      ' ',
    );
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 5 }), (list) => {
        const p = page(`<a href="${list.join('')}">x</a>`);
        const { href } = p.facts.anchors[0]!;
        const long = webAddress(href);
        expect(p.target(href)).toBe(long?.url);
        expect(p.linksAway.map((l) => [l.url, l.host])).toEqual(
          long && new URL(href).origin !== 'https://marsh.example' ? [[long.url, long.host]] : [],
        );
        expect(p.hostIn(href)).toBe(long?.host ?? '');
      }),
      { numRuns: 3000 },
    );
  });
  describe('names its loads, canonicals, description and measuring scripts', () => {
    const p = page(
      '<head><link rel="canonical" href="/one"><link rel="canonical" href="/two"><meta name="description" content="d"><script src="https://count.example/?id=G-ABC12345"></script></head><img src="https://firth.example/p.png">',
    );
    it.each([
      ['p.loads.map((l) => l.host)', () => p.loads.map((l) => l.host), ['count.example', 'firth.example']],
      ['p.canonical', () => p.canonical, 'https://marsh.example/one'],
      ['p.canonicals.length', () => p.canonicals.length, 2],
      ['p.description?.content', () => p.description?.content, 'd'],
      ['p.measuring.map((m) => m.id)', () => p.measuring.map((m) => m.id), ['G-ABC12345']],
      ['p.path', () => p.path, '/a/b'],
    ])('%s', (_, judged, wanted) => {
      expect(judged()).toEqual(wanted);
    });
  });
});

describe('a page that passed', () => {
  it('is one place for all checks, and none can change it', () => {
    const p = page('');
    expect(p.passed).toBe(p.passed);
    expect(p.passed).toMatchObject({ place: URL_OF_PAGE, outcome: 'passed' });
    expect(() => {
      p.passed.found = 'x';
    }).toThrow(TypeError);
  });
});

describe('a page’s words', () => {
  it.each([
    ['#id', true],
    ['.class', true],
    ['.other', false],
    ['grüne wiese', true],
    ['GRUNE', true],
    ['the title', true],
    ['', false],
    ['absent', false],
  ])('mark “%s”: %s', (mark, there) => {
    expect(
      page('<title>The Title</title><p id="id" class="a class">Grüne Wiese</p>').words.carries(mark),
    ).toBe(there);
  });
  it('are folded as any text is, the short way for ASCII too', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('A', 'b', 'É', 'ß', 'İ', 'ﬁ', ' ', '—', '日', 'x\u0301') }),
        (text) => {
          const facts = extractPage(`<p>${text}`, URL_OF_PAGE);
          expect(new PageText(facts).folded).toBe(foldLoosely(facts.text));
        },
      ),
    );
  });
});

describe('what is remembered', () => {
  describe('each question is answered once, undefined too', () => {
    const asked: string[] = [];
    const f = memoize((q: string) => {
      asked.push(q);
      return q === 'a' ? 1 : undefined;
    });
    it.each([
      ['a', 1],
      ['b', undefined],
      ['a', 1],
      ['b', undefined],
    ])('%s: %s', (one, wanted) => {
      expect(f(one)).toBe(wanted);
    });
    it('asked', () => {
      expect(asked).toEqual(['a', 'b']);
    });
  });
  it('begins anew when it has remembered enough', () => {
    let asked = 0;
    const f = memoize((q: number) => {
      asked++;
      return q;
    }, 2);
    for (const q of [1, 2, 1, 3, 1]) f(q);
    expect(asked).toBe(4);
  });
  it('path and query of a normalised address are those of the URL standard', () => {
    fc.assert(
      fc.property(fc.webUrl({ withQueryParameters: true }), (text) => {
        const url = new URL(text);
        url.hash = '';
        expect(splitAddress(url.href)).toEqual({ path: url.pathname, query: url.search });
      }),
    );
  });
});
