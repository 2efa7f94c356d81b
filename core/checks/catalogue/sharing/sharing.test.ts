/** Sharing: pictures, cards, icons, the manifest. */
import { describe, expect, it } from 'vitest';
import type { AssetEvidence } from '#core/facts/evidence';
import {
  asset,
  ask,
  brokenChain,
  chain,
  evidence,
  HEAD,
  HOME as home,
  outcome as out,
  page,
  withAssets,
  withHome,
  withPages,
} from '#core/checks/example-evidence';
const image = (width: number, height = width, more = {}) => ({
  image: { type: 'png', width, height, ...more },
});

describe('sharing', () => {
  it('the four properties of the Open Graph protocol', () => {
    expect(out('sharing.preview-complete', { head: HEAD })).toBe('passed');
    expect(out('sharing.preview-complete', { head: HEAD.replace('og:type', 'og:x') })).toBe('failed');
  });
  describe('share picture: absolute, https, there, a picture', () => {
    const judged = (address: string, asset: Partial<AssetEvidence>) => {
      const e = withAssets({ url: 'https://marsh-choir.example/p.png', roles: ['share-picture'], ...asset });
      return ask('sharing.image-loads', {
        evidence: {
          ...e,
          pages: [page({ url: home, via: 'home', head: `<meta property="og:image" content="${address}">` })],
        },
      }).outcome;
    };
    const url = `${home}p.png`;
    it.each([
      ['url, image(1200, 630)', url, image(1200, 630), 'passed'],
      ["'/p.png', image(1200, 630)", '/p.png', image(1200, 630), 'failed'],
      [
        "url.replace('https', 'http'), image(1200, 630)",
        url.replace('https', 'http'),
        image(1200, 630),
        'failed',
      ],
      ['url, { chain: chain([url], 404) }', url, { chain: chain([url], 404) }, 'failed'],
      ["url, { imageError: 'no picture' }", url, { imageError: 'no picture' }, 'failed'],
      [
        "url, { chain: brokenChain(url, 'timeout') }",
        url,
        { chain: brokenChain(url, 'timeout') },
        'cantTell',
      ],
    ])('%s', (_, address, asset, wanted) => {
      expect(judged(address, asset)).toBe(wanted);
    });
  });
  describe('share picture: 1200 x 630, ratio within 2 %', () => {
    const judged = (w: number, h: number) =>
      ask('sharing.image-size', { evidence: withAssets({ roles: ['share-picture'], ...image(w, h) }) })
        .outcome;
    it.each([
      [1200, 630, 'passed'],
      [1199, 630, 'failed'],
      [1200, 629, 'failed'],
      [1224, 630, 'passed'],
      [1225, 630, 'failed'],
      [2400, 1260, 'passed'],
    ])('%s, %s: %s', (w, h, wanted) => {
      expect(judged(w, h)).toBe(wanted);
    });
  });
  describe('icons: square, large enough, the sizes the host requires', () => {
    const judged = (assets: Partial<AssetEvidence>[], required?: number[]) =>
      ask('sharing.favicon', { evidence: withAssets(...assets), profile: { name: 'F', icons: { required } } })
        .outcome;
    it.each([
      ['[image(32)]', [image(32)], undefined, 'passed'],
      ['[image(31)]', [image(31)], undefined, 'failed'],
      ['[image(64, 32)]', [image(64, 32)], undefined, 'failed'],
      [
        '[ image(16, 16, { sizes: [ { width: 16, height: 16 }, { width: 48, hei',
        [
          image(16, 16, {
            sizes: [
              { width: 16, height: 16 },
              { width: 48, height: 48 },
            ],
          }),
        ],
        undefined,
        'passed',
      ],
      [
        "[{ image: { type: 'svg', width: 1, height: 1 } }]",
        [{ image: { type: 'svg', width: 1, height: 1 } }],
        undefined,
        'passed',
      ],
      ['[image(48), image(240)], [48, 240]', [image(48), image(240)], [48, 240], 'passed'],
      ['[image(64), image(240)], [48, 240]', [image(64), image(240)], [48, 240], 'failed'],
    ])('%s', (_, assets, required, wanted) => {
      expect(judged(assets, required)).toBe(wanted);
    });
    it('a touch icon alone', () => {
      expect(
        ask('sharing.touch-icon', { evidence: withAssets({ roles: ['touch-icon'], ...image(180) }) }).outcome,
      ).toBe('passed');
    });
  });
  it('texts of their own', () => {
    expect(out('sharing.text-own', { head: HEAD.replace('content="Songs"', 'content="Home"') })).toBe(
      'failed',
    );
  });
});

describe('cards, icons and the manifest', () => {
  describe('weight of the picture: the profile’s limit, else 2,000,000 bytes', () => {
    const w = (size: number, sharePictureBytes?: number) =>
      ask('sharing.image-weight', {
        evidence: withAssets(
          asset('p.png', { roles: ['share-picture'], size, image: { type: 'png', width: 1, height: 1 } }),
        ),
        profile: { name: 'F', sharePictureBytes },
      }).outcome;
    it.each([
      [2_000_000, undefined, 'passed'],
      [2_000_001, undefined, 'failed'],
      [900_000, 900_000, 'passed'],
      [900_001, 900_000, 'failed'],
    ])('%s, %s: %s', (size, sharePictureBytes, wanted) => {
      expect(w(size, sharePictureBytes)).toBe(wanted);
    });
  });
  describe('og:url is the canonical', () => {
    const u = (content: string) => {
      const p = page({ url: home, via: 'home' });
      for (const m of p.facts!.metas) if (m.property === 'og:url') m.content = content;
      return ask('sharing.address-agrees', { evidence: withPages(p) }).outcome;
    };
    it.each([
      ['home', home, 'passed'],
      ["'https://marsh-choir.example'", 'https://marsh-choir.example', 'passed'],
      ['`${home}x`', `${home}x`, 'failed'],
      ["''", '', 'inapplicable'],
    ])('%s', (_, content, wanted) => {
      expect(u(content)).toBe(wanted);
    });
  });
  describe('a card type', () => {
    const c = (content: string) =>
      out('sharing.card', { head: `<meta name="twitter:card" content="${content}">` });
    it.each([
      ['summary_large_image', 'passed'],
      ['Summary', 'passed'],
      ['photo', 'failed'],
      ['', 'failed'],
    ])('%s: %s', (content, wanted) => {
      expect(c(content)).toBe(wanted);
    });
  });
  describe('sharp icons: 64 px, SVG, or what the profile recommends', () => {
    const i = (recommended: number[] | undefined, ...icons: { width: number; type?: string }[]) =>
      ask('sharing.icon-sharp', {
        evidence: withAssets(
          ...icons.map((x, n) =>
            asset(`i${n}`, {
              roles: ['icon'],
              image: { type: x.type ?? 'png', width: x.width, height: x.width },
            }),
          ),
        ),
        profile: { name: 'F', icons: { recommended } },
      }).outcome;
    it.each([
      ['63 px', () => i(undefined, { width: 63 }), 'failed'],
      ['64 px', () => i(undefined, { width: 64 }), 'passed'],
      ['SVG', () => i(undefined, { width: 1, type: 'svg' }), 'passed'],
      ['240 recommended, 192 there', () => i([240], { width: 192 }), 'failed'],
      ['240 recommended, and among them', () => i([240], { width: 48 }, { width: 240 }), 'passed'],
    ])('%s', (_, outcome, wanted) => {
      expect(outcome()).toBe(wanted);
    });
  });
  describe('declared sizes are the real ones', () => {
    const s = (sizes: string, image: AssetEvidence['image']) =>
      ask('sharing.icon-sizes-true', {
        evidence: {
          ...withHome({ head: `<link rel="icon" href="/i.png" sizes="${sizes}">` }),
          assets: [asset('i.png', { roles: ['icon'], image })],
        },
      }).outcome;
    const ico = {
      type: 'ico',
      width: 16,
      height: 16,
      sizes: [
        { width: 16, height: 16 },
        { width: 32, height: 32 },
      ],
    };
    it.each([
      [
        "'48x48', { type: 'png', width: 48, height: 48 }",
        '48x48',
        { type: 'png', width: 48, height: 48 },
        'passed',
      ],
      [
        "'48x48', { type: 'png', width: 32, height: 32 }",
        '48x48',
        { type: 'png', width: 32, height: 32 },
        'failed',
      ],
      ["'16x16 32x32', ico", '16x16 32x32', ico, 'passed'],
      ["'16x16 48x48', ico", '16x16 48x48', ico, 'failed'],
      ["'any', { type: 'svg', width: 1, height: 1 }", 'any', { type: 'svg', width: 1, height: 1 }, 'passed'],
      [
        "'any', { type: 'png', width: 512, height: 512 }",
        'any',
        { type: 'png', width: 512, height: 512 },
        'failed',
      ],
    ])('%s', (_, sizes, image, wanted) => {
      expect(s(sizes, image)).toBe(wanted);
    });
  });
  describe('not the host’s icon', () => {
    const o = (sha256: string, hashes?: string[]) =>
      ask('sharing.icon-own', {
        evidence: withAssets(
          asset('i', { roles: ['icon'], sha256, image: { type: 'png', width: 1, height: 1 } }),
        ),
        profile: { name: 'F', defaults: { iconHashes: hashes } },
      }).outcome;
    it.each([
      ['aa', ['AA'], 'failed'],
      ['bb', ['aa'], 'passed'],
      ['aa', undefined, 'inapplicable'],
    ])('%s, %j: %s', (sha256, hashes, wanted) => {
      expect(o(sha256, hashes)).toBe(wanted);
    });
  });
  describe('the manifest: name, icons, start within its scope (Web Application Manifest)', () => {
    const icons = [192, 512].map((n) => ({ src: `${home}${n}.png`, sizes: [`${n}x${n}`] }));
    const m = (facts: object | undefined, status = 200) =>
      ask('sharing.manifest', {
        evidence: evidence({
          manifest: { url: `${home}m`, chain: chain([`${home}m`], status), facts: facts as never },
        }),
      }).outcome;
    it.each([
      [{ name: 'x', icons }, undefined, 'passed'],
      [{ icons }, undefined, 'failed'],
      [{ name: 'x', icons: icons.slice(1) }, undefined, 'failed'],
      [{ error: 'no JSON', icons: [] }, undefined, 'failed'],
      [{ name: 'x', icons, startUrl: `${home}app/`, scope: `${home}app/` }, undefined, 'passed'],
      [{ name: 'x', icons, startUrl: home, scope: `${home}app/` }, undefined, 'failed'],
      [undefined, 404, 'failed'],
    ])('%j, %s: %s', (facts, status, wanted) => {
      expect(m(facts, status)).toBe(wanted);
    });
    it('a site with nothing of the kind', () => {
      expect(ask('sharing.manifest', {}).outcome).toBe('inapplicable');
    });
  });
});

describe('a share picture has a text of its own (Open Graph protocol: "If the page specifies an og:image it should specify og:image:alt")', () => {
  const judged = (head: string) =>
    ask('sharing.image-description', { evidence: withPages(page({ url: home, via: 'home', head })) });
  const IMAGE = `<meta property="og:image" content="${home}share.png">`;
  it.each([
    ['IMAGE', IMAGE, 'failed'],
    [
      '`${IMAGE}<meta property="og:image:alt" content=" ">`',
      `${IMAGE}<meta property="og:image:alt" content=" ">`,
      'failed',
    ],
    [
      '`${IMAGE}<meta property="og:image:alt" content="The choir">`',
      `${IMAGE}<meta property="og:image:alt" content="The choir">`,
      'passed',
    ],
    [
      '`${IMAGE}<meta name="og:image:alt" content="The choir">`',
      `${IMAGE}<meta name="og:image:alt" content="The choir">`,
      'passed',
    ],
    ["''", '', 'inapplicable'],
  ])('%s', (_, head, wanted) => {
    expect(judged(head).outcome).toBe(wanted);
  });
});
