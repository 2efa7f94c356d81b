import { describe, expect, it } from 'vitest';
import { extractPage } from './html';
import { addressPattern, structureOf } from './template';

describe('the pattern of an address', () => {
  it.each([
    ['pages of one folder', 'https://kites.example/shop/blue-mug', 'kites.example/shop/*'],
    ['their ending stays', 'https://kites.example/shop/tin-42.html', 'kites.example/shop/*.html'],
    ['folders by the year', 'https://kites.example/notes/2026/11/storm', 'kites.example/notes/#/#/*'],
    ['top-level pages by their names', 'https://kites.example/about', 'kites.example/about'],
    ['but not by their numbers', 'https://kites.example/p-17', 'kites.example/p-#'],
    ['a query by its names', 'https://kites.example/?p=3&lang=en', 'kites.example/?lang&p'],
    ['the home page', 'https://kites.example/', 'kites.example/'],
    ['languages are told apart', 'https://kites.example/de/shop/blau', 'kites.example/de/shop/*'],
  ])('%s', (_, address, pattern) => expect(addressPattern(address)).toBe(pattern));
});

describe('how a page is built', () => {
  const of = (html: string): string => structureOf(extractPage(html, 'https://kites.example/'));
  it('counts runs of headings once', () =>
    expect(of('<h1>a</h1><h2>b</h2><h2>c</h2>')).toBe(of('<h1>x</h1><h2>y</h2>')));
  it('tells a form apart', () => expect(of('<h1>a</h1><form></form>')).not.toBe(of('<h1>a</h1>')));
});
