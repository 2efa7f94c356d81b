/**
 * Robots rules against a second parser (npm robots-parser) over generated files; the standard's own examples
 * stand beside ours (core/extract/robots.test.ts).
 */
import fc from '../property';
import robotsParser from 'robots-parser';
import { describe, expect, it } from 'vitest';
import { mayFetch, parseRobots } from '#core/extract/robots';

const SITE = 'https://a.example';
const make = robotsParser as unknown as (
  url: string,
  text: string,
) => { isAllowed(url: string, agent: string): boolean | undefined };
const agents = ['*', 'foobot', 'barbot', 'bazbot'];
const segment = fc.constantFrom('a', 'b', 'page', 'x.gif', 'x.html', 'private');
const path = fc.array(segment, { maxLength: 3 }).map((s) => `/${s.join('/')}`);
const pattern = fc.tuple(path, fc.constantFrom('', '*', '$', '*.gif$', '/*/b')).map(([p, end]) => p + end);
const rule = fc.oneof(
  {
    weight: 9,
    arbitrary: fc.tuple(fc.constantFrom('Allow', 'Disallow'), pattern).map(([f, p]) => `${f}: ${p}`),
  },
  fc.constantFrom('# a comment', '', 'Disallow:'),
);
// a group without a rule lets everything in (RFC 9309, 2.2.1); the other parser takes it for no group, so
// none is made
const group = fc
  .tuple(
    fc.uniqueArray(fc.constantFrom(...agents), { minLength: 1, maxLength: 2 }),
    fc
      .array(rule, { minLength: 1, maxLength: 5 })
      .filter((rules) => rules.some((r) => /^(Allow|Disallow)/.test(r))),
  )
  .map(([names, rules]) => [...names.map((n) => `User-agent: ${n}`), ...rules].join('\n'));
const file = fc.array(group, { minLength: 1, maxLength: 3 }).map((g) => g.join('\n\n'));

describe('two parsers of robots.txt', () => {
  it('come to the same answer', () => {
    fc.assert(
      fc.property(file, path, fc.constantFrom('foobot', 'barbot', 'otherbot'), (text, where, agent) => {
        const url = `${SITE}${where}`;
        expect(mayFetch(parseRobots(text), agent, url).allowed, `${text}\n--- ${agent} ${where}`).toBe(
          make(`${SITE}/robots.txt`, text).isAllowed(url, agent) ?? true,
        );
      }),
      { numRuns: 4000 },
    );
  });
});
