/** Link headers: the examples of RFC 8288 3.5, from memory, and what servers make of them. */
import { describe, expect, it } from 'vitest';
import { readLinkHeader } from './link-header';

describe('a Link header', () => {
  it.each<[string, [string, string[]][]]>([
    [
      '<http://example.com/TheBook/chapter2>; rel="previous"; title="previous chapter"',
      [['http://example.com/TheBook/chapter2', ['previous']]],
    ],
    ['</>; rel="http://example.net/foo"', [['/', ['http://example.net/foo']]]],
    ['</terms>; rel="copyright"; anchor="#foo"', [['/terms', ['copyright']]]],
    [
      '</TheBook/chapter2>; rel="previous"; title*=UTF-8\'de\'letztes%20Kapitel, </TheBook/chapter4>; rel="next"; title*=UTF-8\'de\'n%c3%a4chstes%20Kapitel',
      [
        ['/TheBook/chapter2', ['previous']],
        ['/TheBook/chapter4', ['next']],
      ],
    ],
    [
      '<http://example.org/>; rel="start http://example.net/relation/other"',
      [['http://example.org/', ['start', 'http://example.net/relation/other']]],
    ],
    [
      '<https://example.org/>; rel="start", <https://example.org/index>; rel="index"',
      [
        ['https://example.org/', ['start']],
        ['https://example.org/index', ['index']],
      ],
    ],
    ['</a,b>; REL=Canonical;hreflang=en', [['/a,b', ['canonical']]]],
    ['</a>; title="rel"', [['/a', []]]],
    ['no link', []],
    ['', []],
  ])('%s', (value, links) => {
    expect(readLinkHeader(value).map((l) => [l.href, l.rel])).toEqual(links);
  });
  it('that is nonsense takes no time to speak of', () => {
    const started = performance.now();
    readLinkHeader('<>;rel=rel='.repeat(6000) + 'canonical');
    readLinkHeader('<'.repeat(60_000));
    expect(performance.now() - started).toBeLessThan(2000);
  });
});
