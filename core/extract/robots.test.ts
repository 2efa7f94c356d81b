import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { mayFetch, parseRobots, patternMatches, rulesFor } from './robots';

const may = (robots: string, agent: string, path: string): boolean =>
  mayFetch(parseRobots(robots), agent, `https://a.example${path}`).allowed;

// RFC 9309 section 5.1, as printed there
const SIMPLE = `User-Agent: *
Disallow: *.gif$
Disallow: /example/
Allow: /publications/

User-Agent: foobot
Disallow:/
Allow:/example/page.html
Allow:/example/allowed.gif

User-Agent: barbot
User-Agent: bazbot
Disallow: /example/page.html

User-Agent: quxbot

EOF`;

describe('RFC 9309, 5.1 (simple example)', () => {
  it.each([
    ['foobot', '/example/page.html', true],
    ['foobot', '/example/allowed.gif', true],
    ['foobot', '/', false],
    ['foobot', '/publications/', false],
    ['barbot', '/example/page.html', false],
    ['bazbot', '/example/page.html', false],
    ['barbot', '/example/other.html', true],
    ['barbot', '/x.gif', true],
    ['quxbot', '/example/', true],
    ['quxbot', '/x.gif', true],
    ['anybot', '/x.gif', false],
    ['anybot', '/x.gif?1', true],
    ['anybot', '/example/x', false],
    ['anybot', '/publications/x', true],
  ])('%s may fetch %s: %s', (agent, path, expected) => {
    expect(may(SIMPLE, agent, path)).toBe(expected);
  });
});

describe('RFC 9309, 5.2 (longest match)', () => {
  const robots = 'User-Agent: foobot\nAllow: /example/page/\nDisallow: /example/page/disallowed.gif\n';
  it('the longer rule decides', () => {
    expect(may(robots, 'foobot', '/example/page/disallowed.gif')).toBe(false);
    expect(may(robots, 'foobot', '/example/page/ok.gif')).toBe(true);
  });
});

describe('RFC 9309, 2.2.2 (matching after percent-encoding, table)', () => {
  it.each([
    ['/foo/bar?baz=quz', '/foo/bar?baz=quz', true],
    ['/foo/bar?baz=https://foo.bar', '/foo/bar?baz=https://foo.bar', true],
    ['/foo/bar/ツ', '/foo/bar/%E3%83%84', true],
    ['/foo/bar/%E3%83%84', '/foo/bar/%E3%83%84', true],
    ['/foo/bar/%62%61%7A', '/foo/bar/baz', true],
    // a reserved octet is not the same as its encoded form
    ['/a%2Fb', '/a/b', false],
  ])('rule %s, path %s: %s', (pattern, path, expected) => {
    expect(patternMatches(pattern, path)).toBe(expected);
  });
});

describe('groups and special characters (RFC 9309, 2.2.1 to 2.2.4)', () => {
  it('groups of the same agent are merged', () => {
    expect(
      may(
        'User-agent: a\nDisallow: /x\n\nUser-agent: b\nDisallow: /y\n\nUser-agent: a\nDisallow: /z',
        'a',
        '/z',
      ),
    ).toBe(false);
  });
  it('a sitemap line between does not end a group', () => {
    expect(may('User-agent: *\nSitemap: https://a.example/s.xml\nDisallow: /x', 'a', '/x')).toBe(false);
  });
  it('allow wins a tie', () => {
    expect(may('User-agent: *\nDisallow: /page\nAllow: /page', 'a', '/page')).toBe(true);
  });
  it('an empty Disallow allows everything', () => {
    expect(may('User-agent: *\nDisallow:', 'a', '/x')).toBe(true);
  });
  it('no group, no rules', () => {
    expect(rulesFor(parseRobots('User-agent: b\nDisallow: /'), 'a')).toBeUndefined();
  });
  it('the version of an agent does not count', () => {
    expect(may('User-agent: foobot/2.1\nDisallow: /', 'FooBot', '/x')).toBe(false);
  });
  it('robots.txt itself may always be fetched', () => {
    expect(may('User-agent: *\nDisallow: /', 'a', '/robots.txt')).toBe(true);
  });
  it('$ anchors the end, * stands for anything', () => {
    expect(patternMatches('/*.php$', '/a/b.php')).toBe(true);
    expect(patternMatches('/*.php$', '/a/b.php?x')).toBe(false);
    expect(patternMatches('/a*c*e', '/abcde')).toBe(true);
    expect(patternMatches('/a*$', '/abc')).toBe(true);
  });
  it('odd lines are told', () => {
    expect(
      parseRobots('Disallow: /x\nUser-agent: *\nDissallow: /y\nrubbish').oddities.map((o) => o.line),
    ).toEqual([1, 3, 4]);
  });
});

describe('anything at all', () => {
  it('is read without throwing, and a pattern matches as its regular expression does', () => {
    fc.assert(
      fc.property(fc.string(), (s) => {
        parseRobots(s);
      }),
    );
    const part = fc.stringMatching(/^[a-c*]{0,8}$/);
    fc.assert(
      fc.property(part, fc.boolean(), fc.stringMatching(/^[a-c]{0,10}$/), (p, end, path) => {
        const re = new RegExp(`^/${p.split('*').join('[\\s\\S]*')}${end ? '$' : ''}`);
        expect(patternMatches(`/${p}${end ? '$' : ''}`, `/${path}`)).toBe(re.test(`/${path}`));
      }),
      { numRuns: 1000 },
    );
  });
});
