import fc from '../../tests/property';
import { parse, serialize } from 'parse5';
import { describe, expect, it } from 'vitest';
import { parseUrl, resolveAddress } from './address';
import { extractPage } from './html';
import { parsePlaced } from './html-tree';

const at = 'https://a.example/dir/page';

describe('facts of a page', () => {
  it('reads title, metas, links, language and headings, each with its tag, line and column', () => {
    const f = extractPage(
      '<!doctype html>\n<html lang=en>\n<head>\n  <title>A &amp; B\n two</title>\n  <META NAME="Description" CONTENT="x > y">\n  <link rel="Canonical" href="../c?d">\n</head><body><h2>H</h2>',
      at,
    );
    expect(f.titles[0]).toMatchObject({
      text: 'A & B two',
      line: 4,
      column: 3,
      where: 'head',
      raw: '<title>',
    });
    expect(f.metas[0]).toMatchObject({
      name: 'description',
      content: 'x > y',
      line: 6,
      raw: '<META NAME="Description" CONTENT="x > y">',
    });
    expect(f.links[0]).toMatchObject({ rel: ['canonical'], href: 'https://a.example/c?d', relative: true });
    expect(f.lang?.value).toBe('en');
    expect(f.headings).toEqual([{ level: 2, text: 'H', raw: '<h2>', line: 8, column: 14 }]);
  });
  it('a stray tag closes the head early, so that what follows stands in the body', () => {
    expect(
      extractPage('<head><title>x</title><div></div><meta name=description content=y></head>', at).metas[0]!
        .where,
    ).toBe('body');
  });
  it('comments, templates and noscript hide their tags; an svg’s title is none', () => {
    const f = extractPage(
      '<title>x</title><!-- <meta name=description content=a> --><template><meta name=description content=b></template><noscript><meta name=description content=c></noscript><body><svg><title>icon</title></svg>',
      at,
    );
    expect(f.metas).toEqual([]);
    expect(f.titles).toHaveLength(1);
  });
  it('says which tags look as if they counted and do not, and where', () => {
    const f = extractPage(
      '<title>x</title>\n<!-- <meta name=description content=a> -->\n<template>\n<link rel=canonical href=b></template><noscript><meta name=robots content=noindex></noscript>',
      at,
    );
    expect(f.hidden).toEqual([
      { tag: 'meta', inside: 'comment', raw: '<meta name=description content=a>', line: 2, column: 6 },
      { tag: 'link', inside: 'template', raw: '<link rel=canonical href=b>', line: 4, column: 1 },
      { tag: 'meta', inside: 'noscript', raw: '<meta name=robots content=noindex>', line: 4, column: 49 },
    ]);
  });
  it('says what closed the head before its time, and only where metadata follow', () => {
    expect(
      extractPage('<head>\n<title>x</title><div>y</div><meta name=description content=z></head>', at)
        .headClosedBy,
    ).toMatchObject({ raw: '<div>', line: 2, column: 17 });
    expect(
      extractPage('<title>x</title><p>a page that leaves its body tag out', at).headClosedBy,
    ).toBeUndefined();
    expect(
      extractPage('<head><title>x</title></head><body><div>y</div></body>', at).headClosedBy,
    ).toBeUndefined();
  });
  it('finds bylines: by relation, property and class', () => {
    const f = extractPage(
      '<p>By <a rel=author href=/u>Ana Tern</a></p><span itemprop=author>Bo Gull</span><div class="post-byline">by Cy Wren</div><p class=authority>no</p>',
      at,
    );
    expect(f.bylines.map((b) => b.text)).toEqual(['Ana Tern', 'Bo Gull', 'by Cy Wren']);
  });
  it('finds links, buttons and fields that nothing names (accname 1.2, steps 2B to 2I)', () => {
    const f = extractPage(
      `<label for=a>A</label><input id=a><label>B <select></select></label><input aria-label=C><input type=submit><input type=hidden><a href=/x><img src=i alt=Home></a><button title=Go></button><a href=/h><svg><title>t</title></svg>x</a>
<input id=z placeholder=Mail><input type=image src=i><a href=/y><img src=i alt=""></a><button><i class=icon></i></button><textarea></textarea>`,
      at,
    );
    expect(f.unnamed.map((u) => `${u.line} ${u.kind} ${u.raw}`).sort()).toEqual([
      '2 button <button>',
      '2 button <input type=image src=i>',
      '2 field <input id=z placeholder=Mail>',
      '2 field <textarea>',
      '2 link <a href=/y>',
    ]);
  });
  it('keeps fonts of style elements', () => {
    expect(
      extractPage('<style>@font-face{font-family:Tern;src:url(t.woff)} p{font-family:Gull}</style>', at).css,
    ).toMatchObject({ fontFaces: [{ family: 'Tern' }], families: ['gull'] });
  });
  it('base changes what addresses mean', () => {
    const f = extractPage('<base href="https://b.example/x/"><a href="y">z</a>', at);
    expect(f.anchors[0]!.href).toBe('https://b.example/x/y');
  });
  it('text leaves out scripts and styles and keeps words apart', () => {
    expect(
      extractPage('<body><p>one</p><p>two<b>three</b></p><script>no()</script><style>p{}</style>', at).text,
    ).toBe('one twothree');
  });
  it('reads JSON-LD, and says why one cannot be read', () => {
    const f = extractPage(
      '<script type="application/ld+json">{"@context":"https://schema.org","@graph":[{"@type":["Organization"],"name":"N"}]}</script><script type="application/ld+json">{x</script>',
      at,
    );
    expect(f.jsonLd[0]!.nodes[0]).toMatchObject({ types: ['Organization'], name: 'N', hasContext: true });
    expect(f.jsonLd[1]!.error).toBeTruthy();
  });
  it('lists what the page loads: srcset, css url(), frames', () => {
    const f = extractPage(
      '<img src=a.png srcset="b.png 1x, c.png 2x"><style>@font-face{src:url("d.woff2")}</style><iframe src="http://e.example/"></iframe>',
      at,
    );
    expect(f.resources.map((r) => `${r.kind} ${new URL(r.url).pathname}`)).toEqual([
      'img /dir/a.png',
      'srcset /dir/b.png',
      'srcset /dir/c.png',
      'css /dir/d.woff2',
      'frame /',
    ]);
  });
  it('finds forms with their fields', () => {
    expect(
      extractPage(
        '<form action="/send" method=POST><input name=a type=EMAIL><textarea name=b></textarea></form>',
        at,
      ).forms[0],
    ).toMatchObject({
      action: 'https://a.example/send',
      method: 'post',
      fields: [
        { name: 'a', type: 'email' },
        { name: 'b', type: 'textarea' },
      ],
    });
  });
  it('deep nesting and a great many links end in time, with what was cut said', () => {
    expect(extractPage('<div>'.repeat(20_000), at).text).toBe('');
    const f = extractPage(Array.from({ length: 10_000 }, (_, i) => `<a href="/${i}">x</a>`).join(''), at);
    expect(f.anchors).toHaveLength(3000);
    expect(f.cut).toContain('anchors');
  });
  it('never throws, and finds as many titles as the whole tree of parse5 has', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            '<title>',
            '</title>',
            '<head>',
            '</head>',
            '<body>',
            '<svg>',
            '</svg>',
            '<!--',
            '-->',
            '<p>',
            '<table>',
            '<td>',
            'x',
            '"',
            '<meta name=a content="b',
            '<template>',
            '</template>',
            '<select>',
            '<math>',
          ),
          { maxLength: 30 },
        ),
        (parts) => {
          const html = parts.join('');
          let count = 0;
          const walk = (n: { tagName?: string; namespaceURI?: string; childNodes?: unknown[] }): void => {
            if (n.tagName === 'title' && n.namespaceURI === 'http://www.w3.org/1999/xhtml') count++;
            if (n.tagName !== 'noscript' && n.tagName !== 'template')
              for (const c of n.childNodes ?? []) walk(c as typeof n);
          };
          walk(parse(html) as never);
          expect(extractPage(html, at).titles.length).toBe(count);
        },
      ),
      { numRuns: 500 },
    );
    fc.assert(
      fc.property(fc.string(), (s) => {
        extractPage(s, at);
      }),
    );
  });
});

describe('what was made faster says the same', () => {
  it('the tree with strides is parse5’s own tree', () => {
    const parts = fc.array(
      fc.oneof(
        fc.constantFrom(
          '<p>',
          '</p>',
          '<b>',
          '<table>',
          '<tr>',
          '<td>',
          '</table>',
          '<script>',
          '</script>',
          '<style>',
          '</style>',
          '<textarea>',
          '</textarea>',
          '<title>',
          '</title>',
          '<a href="x y&amp;z">',
          "<a data-x1='y z' CLASS=Z>",
          '<!-- a-b --x <i -->',
          '<h1>',
          '</h1 x>',
          '\n  \t',
          '<a title="\r\n\u0000&notit;">',
          '&amp;',
          '&',
          '\r\n',
          '\r',
          '\n',
          '\u0000',
          '\ud83d\ude00',
          '\ud83d',
          ' ',
          '<!--',
          '-->',
          '<select>',
          '<svg>',
          '</svg>',
          '<![CDATA[',
          ']]>',
          '<body>',
          '</body>',
          '</html>',
          '<head>',
          '<colgroup>',
          '<template>',
          '<plaintext>',
        ),
        fc.string({ maxLength: 12 }),
      ),
      { maxLength: 25 },
    );
    fc.assert(
      fc.property(parts, (list) => {
        const html = list.join('');
        expect(serialize(parsePlaced(html))).toBe(serialize(parse(html)));
      }),
      { numRuns: 3000 },
    );
    const long = `<p>${'word '.repeat(40_000)}<a href="${'x'.repeat(70_000)}">`;
    expect(serialize(parsePlaced(long))).toBe(serialize(parse(long)));
  });
  it('a tag taken in one look is the tag that parse5 takes letter by letter', () => {
    const piece = fc.constantFrom(
      '<',
      '</',
      '<a',
      '<IMG',
      '<svg',
      '<br',
      '<p',
      '<input',
      ' ',
      '\n',
      '\t',
      '\f',
      '\r',
      'x',
      'X',
      'href',
      'data-y',
      '=',
      '"',
      "'",
      '>',
      '/',
      '/>',
      '&',
      '&amp;',
      'é',
      '\ud83d\ude00',
      '\u0000',
      '\u0001',
      '`',
      '!',
      '?',
      'b="1"',
      "c='2 3'",
      'd=4',
      'b',
      ' e>',
      'f=">"',
      'g="1\r\n2"',
      'h="1\u00002"',
    );
    fc.assert(
      fc.property(fc.array(piece, { minLength: 2, maxLength: 16 }), (list) => {
        const html = `<${list.join('')}`;
        expect(serialize(parsePlaced(html))).toBe(serialize(parse(html)));
      }),
      { numRuns: 20_000 },
    );
    const many = `<a ${Array.from({ length: 90 }, (_, i) => `x${i % 70}=${i}`).join(' ')}>`;
    expect(serialize(parsePlaced(many))).toBe(serialize(parse(many)));
  });
  it('script, style and title go on over every "<" that does not end them', () => {
    const piece = fc.constantFrom(
      '<',
      '</',
      '<!--',
      '-->',
      '<script',
      '</script',
      '</style>',
      '</title >',
      '>',
      'if (a<b && c<=d)',
      '<b>',
      '</b>',
      '<<',
      '<!',
      '&lt;',
      '\n',
      '\r\n',
      '\u0000',
      's',
      ' ',
    );
    fc.assert(
      fc.property(
        fc.constantFrom('script', 'style', 'title', 'textarea', 'xmp', 'iframe'),
        fc.array(piece, { maxLength: 14 }),
        (tag, list) => {
          const html = `<${tag}>${list.join('')}</${tag}><p>after`;
          expect(serialize(parsePlaced(html))).toBe(serialize(parse(html)));
        },
      ),
      { numRuns: 10_000 },
    );
  });
  it('plain addresses are those of the URL standard', () => {
    const piece = fc.constantFrom(
      'a',
      'B',
      '/',
      '//',
      '.',
      '..',
      '~',
      '-',
      '_',
      '?',
      '#',
      '%41',
      ' ',
      ':',
      '1',
      '0x1',
      'xn--a',
      '@',
      '\\',
      'example',
      '.com',
      'https://',
      'http://',
      'é',
      '\t',
    );
    fc.assert(
      fc.property(
        fc.array(piece, { maxLength: 7 }),
        fc.constantFrom(
          'https://a.example/',
          'https://a.example/b/c?d#e',
          'http://127.0.0.1:80/x',
          'https://1.2.3/x',
          'https://xn--bcher-kva.example/',
          'https://a.0x1/',
        ),
        (list, base) => {
          const reference = list.join('');
          // a page always has an address of its own
          fc.pre(parseUrl(base) !== undefined);
          // that is the standard's own, as tests/conformance/urls.test.ts shows
          expect(resolveAddress(reference, parseUrl(base)!.href)).toBe(parseUrl(reference, base)?.href);
        },
      ),
      { numRuns: 20_000 },
    );
  });
});
