/** Read by commonmark, the reference implementation of CommonMark. */
import { HtmlRenderer, Parser } from 'commonmark';
import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { escapeMarkdown } from './markdown';

/** The text that a reader sees, and the links there. */
function read(markdown: string): { text: string; links: string[]; html: string } {
  const tree = new Parser().parse(markdown);
  const walker = tree.walker();
  let text = '';
  const links: string[] = [];
  for (let step = walker.next(); step; step = walker.next()) {
    const { node } = step;
    if (!step.entering) continue;
    if (node.type === 'text' || node.type === 'code') text += node.literal;
    if (node.type === 'link') links.push(node.destination ?? '');
  }
  return { text, links, html: new HtmlRenderer({ safe: false }).render(tree) };
}

describe('text in Markdown', () => {
  it.each([
    [
      'an address is a link, as it is',
      'See https://kites.example/a_b_c?d=1&e=(2).',
      ['https://kites.example/a_b_c?d=1&e=(2'],
    ],
    ['a host stays as it is', 'www.kites.example and mail-1.kites.example', []],
    ['names with underscores', '_dmarc.kites.example and tide._domainkey.kites.example', []],
    ['emphasis stays text', '*all* of _it_ and ~~more~~', []],
    ['a link stays text', '[x](https://evil.example/) ![y](z)', ['https://evil.example/']],
    ['a tag stays text', '<script>alert(1)</script> &lt;', []],
    ['a list stays text', '1. one', []],
    ['a heading stays text', '# one', []],
    ['a rule stays text', '---', []],
  ])('%s', (_, text, links) => {
    const seen = read(escapeMarkdown(text));
    expect([seen.text, seen.links]).toEqual([text, links]);
  });
  it('hosts and paths are not escaped', () =>
    expect(escapeMarkdown('change A kites.example to 192.0.2.1, /old-page.html (301)')).toBe(
      'change A kites.example to 192.0.2.1, /old-page.html (301)',
    ));
  it('whatever it is, it is read as the text that it was, and no markup of its own comes of it', () => {
    const piece = fc.oneof(
      fc.string({ maxLength: 6 }),
      fc.constantFrom(
        'https://',
        '_a.b',
        '`',
        '](',
        '<',
        '\\',
        '&amp;',
        '1.',
        '#',
        ' ',
        '*',
        '_',
        'http://x.example/',
      ),
    );
    fc.assert(
      fc.property(
        fc.array(piece, { maxLength: 12 }).map((p) => p.join('')),
        (given) => {
          const text = given.replace(/\s+/g, ' ').trim();
          const { text: seen, html } = read(`x ${escapeMarkdown(given)}`);
          expect(seen.trimEnd()).toBe(`x ${text}`.trimEnd());
          expect(html.replace(/<\/?(?:p|a|code)\b[^>]*>/g, '')).not.toMatch(/<[a-z]/i);
        },
      ),
    );
  });
});
