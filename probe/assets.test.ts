import { describe, expect, it } from 'vitest';
import { HEAD, page } from '#core/checks/example-evidence';
import { assetsToFetch, fetchAsset } from './assets';

const home = 'https://marsh-choir.example/';
const wanted = (...pages: ReturnType<typeof page>[]) =>
  Object.fromEntries(
    [...assetsToFetch(pages, new Set(['marsh-choir.example']), home).wanted].map(([url, roles]) => [
      url.replace(home, '/'),
      [...roles].join(),
    ]),
  );

describe('which files are fetched', () => {
  it('where browsers look when the page names no icon', () => {
    expect(wanted(page({ url: home, via: 'home' }))).toEqual({
      '/favicon.ico': 'icon',
      '/apple-touch-icon.png': 'touch-icon',
    });
  });
  it('the icons that the home page names, and no others', () => {
    expect(
      wanted(
        page({
          url: home,
          via: 'home',
          head: '<link rel="shortcut icon" href="/i.ico"><link rel="apple-touch-icon-precomposed" href="t.png">',
        }),
        page({ url: `${home}a`, head: '<link rel="icon" href="/other.ico">' }),
      ),
    ).toEqual({ '/i.ico': 'icon', '/t.png': 'touch-icon' });
  });
  it('each share picture once, the site’s own scripts and styles, none of strangers', () => {
    const head = `${HEAD}<link rel="stylesheet" href="/s.css"><script src="/a.js"></script><script src="https://cdn.example/b.js"></script>`;
    const files = wanted(page({ url: home, via: 'home', head }), page({ url: `${home}a`, head }));
    expect(files).toMatchObject({ '/share.png': 'share-picture', '/s.css': 'style', '/a.js': 'script' });
    expect(Object.keys(files).some((f) => f.includes('cdn.example') || f.includes('count.example'))).toBe(
      false,
    );
  });
  it('a picture that is both has both roles', () => {
    expect(
      wanted(page({ url: home, via: 'home', head: `<link rel="icon" href="/share.png">${HEAD}` }))[
        '/share.png'
      ],
    ).toBe('icon,share-picture');
  });
  describe('not more than sixty share pictures and sixty scripts', () => {
    const many = Array.from({ length: 80 }, (_, i) =>
      page({
        url: `${home}${i}`,
        via: i ? 'link' : 'home',
        head: `<meta property="og:image" content="${home}p${i}.png"><script src="/s${i}.js"></script>`,
      }),
    );
    const roles = Object.values(wanted(...many));
    it.each([
      [
        "roles.filter((r) => r === 'share-picture').length",
        () => roles.filter((r) => r === 'share-picture').length,
        60,
      ],
      ["roles.filter((r) => r === 'script').length", () => roles.filter((r) => r === 'script').length, 60],
    ])('%s', (_, judged, wanted) => {
      expect(judged()).toBe(wanted);
    });
  });
});

describe('an icon that stands in the page itself (RFC 2397)', () => {
  const read = (href: string) => fetchAsset(undefined as never, href, new Set(['icon']));
  const svg = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"/>';
  it.each([
    ['a drawing, percent-encoded', `data:image/svg+xml,${encodeURIComponent(svg)}`, 'svg'],
    ['a drawing, as base64', `data:image/svg+xml;base64,${Buffer.from(svg).toString('base64')}`, 'svg'],
    ['a drawing without a size', 'data:image/svg+xml,<svg><path/></svg>', 'svg'],
    ['a picture', 'data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'gif'],
  ])('%s', async (_, href, type) => {
    const asset = await read(href);
    expect(asset.image?.type).toBe(type);
    expect(asset.url.length).toBeLessThanOrEqual(120);
  });
  it.each([
    ['nothing in it', 'data:,', /without data/],
    ['no picture', 'data:text/plain,hello', /no kind of picture/],
  ])('%s', async (_, href, words) => {
    const { chain, imageError } = await read(href);
    expect(chain.error?.message ?? imageError).toMatch(words);
  });
});
