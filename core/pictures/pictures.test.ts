/** Cropping, measuring, naming: the picture workshop's own computation. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cropTo, enlargement, SHARE_SIZE } from './crop';
import { askedAs, iconSizes, namedSizes } from './icon-sizes';
import { folderFault, kitManifest, kitTags, kitUrl, shareName, type KitPlan } from './kit';
import {
  contrast,
  drawnPart,
  edgeStrength,
  isAlike,
  mainColour,
  outsideSafeZone,
  sharpness,
  type Pixels,
} from './pixels';
import { svgFault } from './svg';

describe('what is kept of a picture', () => {
  it.each([
    ['a wide one, from its middle', [2400, 630], [0.5, 0.5, 1], [600, 0, 1200, 630]],
    ['a tall one, from its top', [1200, 2000], [0.5, 0, 1], [0, 0, 1200, 630]],
    ['a point near the right edge', [2400, 630], [0.95, 0.5, 1], [1200, 0, 1200, 630]],
    ['twice as near', [2400, 1260], [0.5, 0.5, 2], [600, 315, 1200, 630]],
    ['one pixel', [1, 1], [0.5, 0.5, 4], [0, 0, 1, 1]],
  ] as const)('%s', (_, [width, height], [x, y, zoom], [left, top, w, h]) => {
    expect(cropTo({ width, height }, SHARE_SIZE, { x, y, zoom })).toEqual({ left, top, width: w, height: h });
  });
  it('lies within the picture, in its proportions, whatever is asked', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9000 }),
        fc.integer({ min: 1, max: 9000 }),
        share,
        share,
        fc.double({ min: 1, max: 4, noNaN: true }),
        (width, height, x, y, zoom) => {
          const crop = cropTo({ width, height }, SHARE_SIZE, { x, y, zoom });
          for (const n of Object.values(crop)) expect(Number.isInteger(n)).toBe(true);
          expect(crop.left).toBeGreaterThanOrEqual(0);
          expect(crop.top).toBeGreaterThanOrEqual(0);
          expect(crop.left + crop.width).toBeLessThanOrEqual(width);
          expect(crop.top + crop.height).toBeLessThanOrEqual(height);
          // as near to the proportions as whole pixels allow
          const { width: w, height: h } = SHARE_SIZE;
          expect(Math.abs(crop.width * h - crop.height * w)).toBeLessThanOrEqual(w + h);
        },
      ),
    );
  });
  it('says how much it is enlarged', () => {
    expect(enlargement({ width: 600, height: 315 }, SHARE_SIZE)).toBe(2);
  });
});

/** A picture from a picture in letters: "#" black, "." white, " " clear. */
function drawn(...lines: string[]): Pixels {
  const INK: Record<string, number[]> = { '#': [0, 0, 0, 255], '.': [255, 255, 255, 255], ' ': [9, 9, 9, 0] };
  return {
    width: lines[0]!.length,
    height: lines.length,
    rgba: new Uint8Array(lines.flatMap((line) => [...line].flatMap((c) => INK[c]!))),
  };
}

describe('what is measured', () => {
  it('edges: none in one colour, fewer where they are spread, and what shines through weighs nothing', () => {
    expect(edgeStrength(drawn('####', '####'))).toBe(0);
    const clear = { width: 2, height: 1, rgba: new Uint8Array([9, 8, 7, 0, 200, 1, 2, 0]) };
    expect(edgeStrength(clear)).toBe(0);
    const grey = drawn('##..', '##..');
    const soft: Pixels = { ...grey, rgba: new Uint8Array(grey.rgba) };
    for (const y of [0, 1]) soft.rgba.fill(128, (y * 4 + 1) * 4, (y * 4 + 1) * 4 + 3);
    // one step of 255 against two of about half: 1/sqrt(2)
    expect(sharpness(soft, grey)).toBeCloseTo(Math.SQRT1_2, 2);
    expect(sharpness(grey, grey)).toBe(1);
    expect(sharpness(grey, drawn('####', '####'))).toBeNull();
  });
  it('the same drawing in other sizes, or another', () => {
    const left = Array.from({ length: 16 }, () => '########........');
    const right = Array.from({ length: 16 }, () => '........########');
    const small = Array.from({ length: 8 }, () => '####....');
    expect(isAlike(drawn(...left), drawn(...left))).toBe(true);
    expect(isAlike(drawn(...left), drawn(...small))).toBe(true);
    expect(isAlike(drawn(...left), drawn(...right))).toBe(false);
  });
  it('the commonest colour that is seen', () => {
    expect(mainColour(drawn('##.', '## '))).toBe('#000000');
    expect(mainColour(drawn('   '))).toBeUndefined();
  });
  // WCAG 2.2, "contrast ratio" and "relative luminance"; #767676 is the standard's own worked value (G18)
  it.each([
    ['#000000', '#ffffff', 21],
    ['#ffffff', '#ffffff', 1],
    ['#767676', '#ffffff', 4.54],
    ['#777777', '#ffffff', 4.48],
    ['#ff0000', '#ffffff', 4],
  ])('contrast of %s on %s: %d', (one, other, ratio) => {
    expect(contrast(one, other)).toBeCloseTo(ratio, 2);
    expect(contrast(other, one)).toBeCloseTo(ratio, 2);
  });
  it('contrast: the standard’s formula over all greys', () => {
    const luminance = (v: number): number => {
      const c = v / 255;
      return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    };
    for (let v = 0; v < 256; v++) {
      const hex = `#${v.toString(16).padStart(2, '0').repeat(3)}`;
      expect(contrast(hex, '#ffffff'), hex).toBeCloseTo(1.05 / (luminance(v) + 0.05), 6);
    }
  });
  it.each([
    ['a dot in white', drawn('....', '..#.', '....'), { left: 2, top: 1, width: 1, height: 1 }],
    ['two corners apart', drawn('    ', ' #  ', '  . ', '    '), { left: 1, top: 1, width: 2, height: 2 }],
    ['all of it', drawn('#.', '.#'), { left: 0, top: 0, width: 2, height: 2 }],
    ['nothing', drawn('..', '..'), undefined],
  ])('the part that is drawn: %s', (_, picture, part) => {
    expect(drawnPart(picture)).toEqual(part);
  });
  it('outside of the safe zone: nothing of a dot in the middle, all of a dot in the corner', () => {
    const blank = Array.from({ length: 10 }, () => '..........');
    const withDot = (x: number, y: number): Pixels =>
      drawn(...blank.map((l, i) => (i === y ? `${l.slice(0, x)}#${l.slice(x + 1)}` : l)));
    expect(outsideSafeZone(withDot(5, 5))).toBe(0);
    expect(outsideSafeZone(withDot(1, 1))).toBe(1);
    expect(outsideSafeZone(drawn(...blank))).toBe(0);
  });
});

describe('a drawing is taken as a drawing alone', () => {
  const svg = (inner: string, attributes = ''): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"${attributes}>${inner}</svg>`;
  it.each([
    ['shapes', svg('<path d="M0 0h9v9z"/><use href="#a"/>')],
    ['a picture within it', svg('<image href="data:image/png;base64,iVBORw0KGgo="/>')],
    [
      'a style, and a pattern of its own',
      svg('<style>path{fill:url(#p)}</style><path style="fill:url(\'#p\')"/>'),
    ],
    ['a doctype', `<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "svg11.dtd">${svg('')}`],
    ['a comment before it', `<?xml version="1.0"?><!-- <script> -->${svg('<!-- onload= -->')}`],
    [
      'a soft shadow under a few parts',
      svg(
        `<filter id="f"><feGaussianBlur stdDeviation="4"/><feOffset dy="2"/></filter>${'<path filter="url(#f)"/>'.repeat(8)}`,
      ),
    ],
    [
      'a part repeated, cut out and faded',
      svg(
        `<clipPath id="c"><path/></clipPath><mask id="m"><rect/></mask><g id="a">${'<path/>'.repeat(90)}</g><g clip-path="url(#c)" mask="url(#m)">${'<use href="#a"/>'.repeat(90)}</g>`,
      ),
    ],
    [
      'colours that inherit from each other',
      svg('<linearGradient id="b"/><linearGradient id="a" href="#b"/><path fill="url(#a)"/>'.repeat(300)),
    ],
    [
      'a style of one class among many parts',
      svg(`<style>.s{filter:url(#f)}</style><filter id="f"><feOffset/></filter>${'<path/>'.repeat(9000)}`),
    ],
  ])('%s', (_, text) => {
    expect(svgFault(text)).toBeUndefined();
  });
  it.each([
    ['a script', svg('<script>1</script>'), /a script, line 1/],
    ['a script of a namespace', svg('<s:SCRIPT/>'), /a script/],
    ['a handler', svg('', ' onload="x()"'), /runs something \(onload\)/],
    ['HTML within it', svg('<foreignObject/>'), /foreignObject/],
    ['a picture from elsewhere', svg('<image href="https://elsewhere.example/a.png"/>'), /refers to https:/],
    ['a file of the server', svg('<image xlink:href="file:///etc/passwd"/>'), /refers to file:/],
    ['a drawing within it', svg('<image href="data:image/svg+xml;base64,PHN2Zy8+"/>'), /refers to data:/],
    ['a style from elsewhere', svg('<style>@import "a.css";</style>'), /@import/],
    ['an escaped one', svg('<style>@\\69mport "a.css"</style>'), /@import/],
    ['a font in a style', svg('<style>a{src:url(//elsewhere.example/f)}</style>'), /elsewhere/],
    ['a fill from elsewhere', svg('<path fill="url(other.svg#a)"/>'), /other\.svg/],
    ['a style sheet before it', `<?xml-stylesheet href="a.css"?>${svg('')}`, /instruction/],
    [
      'letters that others read otherwise',
      `<?xml version="1.0" encoding="UTF-7"?>${svg('')}`,
      /written in UTF-7/,
    ],
    ['entities', `<!DOCTYPE svg [<!ENTITY a "b">]>${svg('&a;')}`, /entities/],
    ['HTML', '<html><body/></html>', /no SVG/],
    ['what is not closed', '<svg><g>', /well-formed/],
    ['more than anyone draws', svg('<g/>'.repeat(60_000)), /too many parts/],
    [
      'noise and blur over many parts',
      svg(
        `<filter id="f"><feTurbulence numOctaves="1000"/><feGaussianBlur stdDeviation="900"/></filter>${'<rect width="9" height="9" filter="url(#f)"/>'.repeat(300)}`,
      ),
      /take too long to draw/,
    ],
    [
      'one such filter alone',
      svg('<filter id="f"><feTurbulence numOctaves="1000"/></filter><rect filter="url(#f)"/>'),
      /take too long to draw/,
    ],
    [
      'a filter by a style for everything',
      svg(
        `<style>svg > *{filter:url(#f)}</style><filter id="f"><feGaussianBlur stdDeviation="9"/></filter>${'<path/>'.repeat(90)}`,
      ),
      /take too long to draw/,
    ],
    [
      'a wide matrix',
      svg('<filter id="f"><feConvolveMatrix order="99"/></filter><path style="filter:url(#f)"/>'),
      /take too long to draw/,
    ],
    [
      'patterns within patterns',
      svg(
        Array.from(
          { length: 20 },
          (_, i) =>
            `<pattern id="p${i}"><path fill="url(#p${i + 1})"/><path fill="url(#p${i + 1})"/></pattern>`,
        ).join('') + '<path fill="url(#p0)"/>',
      ),
      /repeat its parts too often|too long to draw/,
    ],
    [
      'masks upon each other',
      svg(`<mask id="m"><rect/></mask>${'<g mask="url(#m)"><path/></g>'.repeat(400)}`),
      /take too long to draw/,
    ],
    [
      'parts that repeat each other',
      svg(
        Array.from(
          { length: 9 },
          (_, i) => `<g id="a${i}">${`<use href="#a${i + 1}"/>`.repeat(10)}</g>`,
        ).join('') + '<path id="a9"/>',
      ),
      /repeat its parts too often/,
    ],
    ['a part within itself', svg('<g id="a"><use href="#a"/></g>'), /refers to itself/],
    [
      'a long chain of references',
      svg(
        Array.from({ length: 5000 }, (_, i) => `<use id="u${i}" href="#u${i + 1}"/>`).join('') +
          '<use href="#u0"/>',
      ),
      /lead on too far/,
    ],
    [
      'a marker at each of many corners',
      svg(
        `<marker id="k">${'<path/>'.repeat(900)}</marker><path marker-mid="url(#k)" d="M${'1 2 '.repeat(900)}"/>`,
      ),
      /repeat its parts too often/,
    ],
    [
      'an enormous picture within it',
      svg(
        `<image href="data:image/png;base64,${Buffer.from('89504e470d0a1a0a0000000d4948445200010000000100000806000000', 'hex').toString('base64')}"/>`,
      ),
      /pictures within it are too large/,
    ],
    ['nests deeper than anyone draws', svg('<g>'.repeat(300) + '</g>'.repeat(300)), /too many parts/],
  ])('not with %s', (_, text, fault) => {
    expect(svgFault(text)).toMatch(fault);
  });
  it('nothing breaks it', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(svgFault(text)).toMatch(/./);
      }),
    );
  });
});

describe('names and tags', () => {
  const plan: KitPlan = {
    base: 'https://www.tarn.example/',
    folder: '/',
    name: 'Tarn "Planetarium" & Café',
    icons: { required: [48], recommended: [240], touch: 240 },
    themeColour: '#224466',
    share: { file: 'share-0a1b2c3d.jpg', alt: 'Stars & a boat' },
    hasIcon: true,
  };
  it('sizes: the host’s and the usual ones, each once', () => {
    expect(iconSizes(plan.icons)).toEqual([16, 32, 48, 64, 180, 192, 240, 256, 512]);
    expect(iconSizes(undefined)).toEqual([16, 32, 48, 64, 180, 192, 256, 512]);
    expect(namedSizes(plan.icons)).toEqual([48, 192, 240]);
    expect([48, 240, 16].map((s) => askedAs(s, plan.icons))).toEqual(['required', 'recommended', undefined]);
    expect(askedAs(180, { touch: 180 })).toBe('touch');
  });
  it.each([
    ['/', undefined],
    ['/pictures/', undefined],
    ['/a/b.c/d_e~f/', undefined],
    ['pictures/', /begins and ends/],
    ['/pictures', /begins and ends/],
    ['/../', /dots/],
    ['/a/../b/', /dots/],
    ['/a//b/', /begins and ends/],
    ['/%2e%2e/', /begins and ends/],
    ['/a\\b/', /begins and ends/],
    ['/"><x/', /begins and ends/],
  ])('folder %s', (folder, fault) => {
    if (fault) expect(folderFault(folder)).toMatch(fault);
    else expect(folderFault(folder)).toBeUndefined();
  });
  it.each([
    ['https://a.example/', '/', 'https://a.example/x.png'],
    ['https://a.example/draft', '/', 'https://a.example/draft/x.png'],
    ['https://a.example/draft/', '/img/', 'https://a.example/draft/img/x.png'],
  ])('a file below %s in %s', (base, folder, url) => {
    expect(kitUrl({ base, folder }, 'x.png').href).toBe(url);
  });
  it('tags: icons by their paths, the share picture by its whole address, texts escaped', () => {
    const tags = kitTags(plan);
    expect(tags).toContain('<link rel="icon" href="/favicon.ico" sizes="16x16 32x32 48x48">');
    expect(tags).toContain('<link rel="apple-touch-icon" sizes="240x240" href="/apple-touch-icon.png">');
    expect(tags).toContain('content="https://www.tarn.example/share-0a1b2c3d.jpg"');
    expect(tags).toContain('content="Stars &amp; a boat"');
    expect(kitTags({ ...plan, hasIcon: false })).not.toContain('<link');
    expect(kitTags({ ...plan, share: undefined })).not.toContain('og:image');
  });
  it('the manifest is JSON with a start within its scope', () => {
    const manifest = JSON.parse(kitManifest({ ...plan, base: 'https://a.example/draft', folder: '/i/' })) as {
      name: string;
      start_url: string;
      scope: string;
      icons: { src: string; purpose?: string }[];
    };
    expect(manifest).toMatchObject({ name: plan.name, start_url: '/draft/', scope: '/draft/' });
    expect(manifest.icons.map((i) => i.src)).toEqual([
      '/draft/i/icon-192.png',
      '/draft/i/icon-512.png',
      '/draft/i/icon-maskable-512.png',
    ]);
  });
  it('another picture has another name', () => {
    expect(shareName('0a1b2c3d4e5f', 'jpeg')).toBe('share-0a1b2c3d.jpg');
    expect(shareName('ff1b2c3d4e5f', 'png')).toBe('share-ff1b2c3d.png');
  });
});
