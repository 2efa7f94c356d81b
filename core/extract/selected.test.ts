import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { selectElements } from './selected';

const HTML =
  '<!doctype html><title>x</title><body><nav><a href="/a/" class="on">One <b>two</b></a><a href="/b/">Three</a></nav><template><i>inside</i></template>';
const one = (selector: string) => selectElements(HTML, [selector])[selector]!;

describe('elements by CSS selector', () => {
  it.each<[string, number]>([
    ['nav a', 2],
    ['a.on', 1],
    ['a[href^="/b"]', 1],
    ['nav > a:nth-child(2)', 1],
    ['a:not(.on)', 1],
    ['title', 1],
    ['h1', 0],
    ['a:has(b)', 1],
  ])('%s finds %i', (selector, count) => {
    expect(one(selector)).toMatchObject({ count });
  });
  it('gives text, attributes and the tag as it is, a handful at most and cut', () => {
    expect(one('a').elements[0]).toEqual({
      text: 'One two',
      attributes: { href: '/a/', class: 'on' },
      raw: '<a href="/a/" class="on">One <b>two</b></a>',
    });
    const many = selectElements(`<p>${'<i>x</i>'.repeat(50)}</p><em>${'y'.repeat(2000)}</em>`, ['i', 'em']);
    expect(many.i).toMatchObject({ count: 50 });
    expect(many.i!.elements).toHaveLength(5);
    expect(many.em!.elements[0]!.text).toHaveLength(501);
  });
  it.each(['a[[', ':::', 'a:unknown(', 'a,,b'])('“%s” is no selector, and says so', (selector) => {
    expect(one(selector)).toMatchObject({ count: 0, elements: [], error: expect.any(String) as string });
  });
  it('one bad selector spoils no other, and nothing throws', () => {
    expect(selectElements(HTML, ['a[[', 'a']).a!.count).toBe(2);
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), fc.string({ maxLength: 100 }), (s, h) => {
        expect(selectElements(h, [s])[s]!.count).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 500 },
    );
  });
});
