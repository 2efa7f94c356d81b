/** Where former addresses lead: by path and by content. */
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { plainPath, proposeTargets, redirectsCsv, type KnownPage } from './former';

const fresh: KnownPage[] = [
  { path: '/', title: 'Firth Trams', text: 'Two trams, one mile, many hands' },
  {
    path: '/about/',
    title: 'About us – Firth Trams',
    text: 'The society began in 1931 with a rusty tram and a shed',
  },
  {
    path: '/visit/',
    title: 'Visit – Firth Trams',
    text: 'Opening hours and prices: tickets for adults, children and dogs',
  },
  { path: '/contact/', title: 'Contact – Firth Trams', text: 'Write to us or call the depot' },
];
const former: KnownPage[] = [
  { path: '/index.html', title: 'Trams (old site)', text: 'Welcome' },
  { path: '/Contact.html', title: 'Mail (old site)', text: 'nothing alike' },
  {
    path: '/history.html',
    title: 'How we began (old site)',
    text: 'In 1931 the society found a rusty tram in a shed',
  },
  {
    path: '/prices.php?lang=en',
    title: 'Prices (old site)',
    text: 'Tickets: adults, children, dogs. Opening hours.',
  },
  { path: '/guestbook.cgi', title: 'Zzz', text: 'qqq www' },
];

describe('proposed targets', () => {
  it.each([
    ['/index.html', '/', 100],
    ['/Contact.html', '/contact/', 100],
    ['/history.html', '/about/', undefined],
    ['/prices.php?lang=en', '/visit/', undefined],
    ['/guestbook.cgi', null, 0],
  ])('%s leads to %s', (from, to, score) => {
    const found = proposeTargets(former, fresh).find((p) => p.from === from)!;
    expect(found.to).toBe(to);
    if (score !== undefined) expect(found.score).toBe(score);
    else expect(found.score).toBeGreaterThan(15);
    expect(found.score).toBeLessThanOrEqual(100);
  });
  it('what stands on every page counts for nothing', () => {
    const all = (path: string): KnownPage => ({ path, title: 'Trams', text: 'trams society firth' });
    expect(proposeTargets([all('/x.html')], [all('/a/'), all('/b/')])[0]).toMatchObject({ to: null });
  });
  it('a bare address of the agency’s own list is told by its path alone', () => {
    expect(proposeTargets([{ path: '/about-the-society.html' }], fresh)[0]).toMatchObject({ to: '/about/' });
  });
  it('thousands of pages are compared in bounded time', () => {
    const many = (prefix: string): KnownPage[] =>
      Array.from({ length: 2000 }, (_, i) => ({
        path: `/${prefix}${i}/`,
        title: `Page ${i}`,
        text: `word${i} word${i % 50} common`,
      }));
    const found = proposeTargets(many('old'), many('new'));
    expect(found[1234]).toMatchObject({ to: '/new1234/' });
  });
});

it.each([
  ['/a/index.php', '/a'],
  ['/A%20B.HTML', '/a b'],
  ['/', '/'],
  ['/default.aspx?x=1', '/'],
  ['/%zz', '/%zz'],
])('%s is the same as %s', (path, plain) => {
  expect(plainPath(path)).toBe(plain);
});

it('as CSV can be read again, begins no formula, and has nothing that stays', () => {
  const list = [
    { from: '=cmd()', to: '/a,b' },
    { from: '/', to: '/' },
    { from: '/b', to: 'https://www.t.example/b' },
  ];
  const text = redirectsCsv(list, ['www.t.example']);
  expect(Papa.parse(text, { header: true }).data).toEqual([{ from: "'=cmd()", to: '/a,b' }]);
});
