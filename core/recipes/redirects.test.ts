/** Redirects as lines of web servers: each rule whole, and nothing of it a directive. */
import { describe, expect, it } from 'vitest';
import { REDIRECT_SERVERS, redirectLines } from './redirects';

const HOSTS = ['www.t.example', 't.example'];

describe('redirects', () => {
  it('are one line each', () => {
    const list = [
      { from: '/a.html', to: '/a/' },
      { from: '/old page.html', to: 'https://www.t.example/new/' },
    ];
    expect(redirectLines(list, 'nginx', HOSTS)).toBe(
      'location = "/a.html" { return 301 /a/; }\nlocation = "/old page.html" { return 301 https://www.t.example/new/; }',
    );
    expect(redirectLines(list, 'Apache', HOSTS)).toBe(
      'RedirectMatch 301 "^/a\\.html$" "/a/"\nRedirectMatch 301 "^/old page\\.html$" "https://www.t.example/new/"',
    );
  });
  it('for Caddy are of the whole path', () => {
    expect(redirectLines([{ from: '/a.html', to: '/a/' }], 'Caddy', HOSTS)).toBe(
      'redir "/a.html" /a/ permanent',
    );
  });
  it.each([
    ['a query', '/a?x=1'],
    ['a quote', '/a"; return 200 "x'],
    ['a brace', '/a{b}'],
    ['a line end', '/a\nserver { }'],
    ['a variable', '/$host'],
    ['a regular expression', '/(a|b)'],
  ])('%s becomes no directive', (_, from) => {
    for (const format of REDIRECT_SERVERS) {
      const line = redirectLines([{ from, to: '/x' }], format, HOSTS);
      expect(line).toMatch(/^# by hand: /);
      expect(line).not.toContain('\n');
    }
  });

  it.each([
    ['an address that leads to itself', [{ from: '/', to: '/' }], ''],
    ['the same, written whole', [{ from: 'https://t.example/a', to: '/a' }], ''],
    ['the same, led to another host of the site', [{ from: '/', to: 'https://www.t.example/' }], ''],
    [
      'the same path at a host that is not the site’s',
      [{ from: '/', to: 'https://other.example/' }],
      'redir "/" https://other.example/ permanent',
    ],
    [
      'two that lead to each other, one of them written whole',
      [
        { from: '/a', to: 'https://www.t.example/b' },
        { from: '/b', to: '/a' },
      ],
      '# leads in a circle: "/a" to "https://www.t.example/b"\n# leads in a circle: "/b" to "/a"',
    ],
    [
      'two that lead to each other',
      [
        { from: '/a', to: '/b' },
        { from: '/b', to: '/a' },
      ],
      '# leads in a circle: "/a" to "/b"\n# leads in a circle: "/b" to "/a"',
    ],
    [
      'one that leads into a circle is in none',
      [
        { from: '/c', to: '/a' },
        { from: '/a', to: '/b' },
        { from: '/b', to: '/a' },
      ],
      'redir "/c" /a permanent\n# leads in a circle: "/a" to "/b"\n# leads in a circle: "/b" to "/a"',
    ],
  ])('lead nowhere without end: %s', (_, list, lines) => {
    expect(redirectLines(list, 'Caddy', HOSTS)).toBe(lines);
  });
  it.each([
    ['/index.html', '/', 'if ($request_uri ~ "^/index\\.html(\\?|$)") { return 301 /; }'],
    [
      '/a/x.php',
      'https://www.t.example/a/',
      'if ($request_uri ~ "^/a/x\\.php(\\?|$)") { return 301 https://www.t.example/a/; }',
    ],
    ['/a/x.html', '/a/x', 'if ($request_uri ~ "^/a/x\\.html(\\?|$)") { return 301 /a/x; }'],
    ['/a/x.html', '/a/x/', 'location = "/a/x.html" { return 301 /a/x/; }'],
    ['/a/x.php', '/', 'location = "/a/x.php" { return 301 /; }'],
  ])('what may be the file behind its target is told by what was asked: %s to %s', (from, to, line) => {
    expect(redirectLines([{ from, to }], 'nginx', HOSTS)).toBe(line);
  });
});
