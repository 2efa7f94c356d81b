/** Default pages of web servers, and pages that only speak of servers. */
import { existsSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { extractPage } from '#core/extract/html';
import { serverPage } from './page-marks';

const read = (html: string) => ({ facts: extractPage(html, 'https://site.example/') });

describe('pages of Debian’s packages', () => {
  const files = [
    ['nginx', '/usr/share/nginx/html/index.html', 'Welcome to nginx'],
    ['apache2', '/usr/share/apache2/default-site/index.html', 'Apache2 Debian Default Page'],
  ] as const;
  it.each(files.filter(([, file]) => existsSync(file)))('%s, as it is installed here', (_, file, mark) => {
    expect(serverPage(read(readFileSync(file, 'utf8')))).toBe(mark);
  });
  // the beginnings of the pages in lighttpd 1.4.69, caddy 2.6.2 and tomcat10 10.1 of Debian 12
  it.each([
    [
      'lighttpd',
      '<title>Welcome page</title><h1>Placeholder page</h1><p>The owner of this web site has not put up any web pages yet. Please come back later.</p>',
      'Placeholder page',
    ],
    [
      'caddy',
      '<title>Caddy works!</title><h1>Congratulations!</h1><p>🎊 Your web server is working. Now make it work for you.</p>',
      'Caddy works',
    ],
    [
      'tomcat10',
      "<title>Apache Tomcat</title><h1>It works !</h1><p>If you're seeing this page via a web browser, it means you've setup Tomcat successfully. Congratulations!</p>",
      'Apache Tomcat',
    ],
    ['a server that says no more (from memory)', '<h1>It works!</h1>', 'It works!'],
  ])('%s', (_, html, mark) => {
    expect(serverPage(read(html))).toBe(mark);
  });
});

it.each([
  [
    'a post about a server',
    '<title>Welcome to nginx</title><p>We moved our choir’s site to nginx. It was a long night.',
  ],
  ['a page with one mark alone', '<title>Apache2 Debian Default Page: what to do next</title><p>Replace it.'],
  ['a site whose slogan says so', '<title>Kites</title><h1>It works!</h1>'],
  ['a page that is empty', '<title></title>'],
])('%s is none', (_, html) => {
  expect(serverPage(read(html))).toBeUndefined();
});
