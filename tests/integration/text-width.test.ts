/**
 * Text widths against Chromium's own measuring of a face with Arial's metrics (npm @fontsource/arimo): a page
 * is laid out and measured. Laid out, Chromium kerns against spaces too.
 */
import { readFileSync, readdirSync } from 'node:fs';
import { chromium, type Browser, type Page } from '@playwright/test';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { textWidth } from '#core/text/width';

let browser: Browser;
let page: Page;
const FOLDER = new URL('../../node_modules/@fontsource/arimo/files/', import.meta.url);

beforeAll(async () => {
  browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
      '--disable-gpu',
      '--disable-background-networking',
    ],
  });
  page = await browser.newPage();
  const faces = readdirSync(FOLDER).filter((f) => /-400-normal\.woff2$/.test(f));
  const css = faces
    .map(
      (f) =>
        `@font-face { font-family: Metric; src: url(data:font/woff2;base64,${readFileSync(new URL(f, FOLDER)).toString('base64')}); unicode-range: ${RANGES[/arimo-(.*)-400/.exec(f)![1]!] ?? 'U+10FFFF'}; }`,
    )
    .join('\n');
  await page.setContent(
    `<!doctype html><style>${css} span { font: 20px Metric; white-space: pre; font-kerning: normal; text-rendering: geometricPrecision; }</style><body>`,
  );
});
afterAll(async () => {
  await browser.close();
});

/** Which letters each file of the face holds, as the package's own CSS says. */
const RANGES: Record<string, string> = Object.fromEntries(
  ['latin', 'latin-ext', 'cyrillic', 'cyrillic-ext', 'greek', 'greek-ext', 'hebrew', 'vietnamese'].map(
    (name) => {
      const css = readFileSync(new URL('../400.css', FOLDER), 'utf8');
      const at = css.indexOf(`arimo-${name}-400-normal.woff2`);
      return [name, /unicode-range:\s*([^;]+);/.exec(css.slice(at))?.[1] ?? 'U+10FFFF'];
    },
  ),
);

async function measure(texts: string[]): Promise<number[]> {
  return page.evaluate(async (all) => {
    const spans = all.map((t) => {
      const s = document.createElement('span');
      s.textContent = t;
      document.body.append(s, document.createElement('br'));
      return s;
    });
    await document.fonts.ready;
    const out = spans.map((s) => s.getBoundingClientRect().width);
    document.body.replaceChildren();
    return out;
  }, texts);
}

const SENTENCES = [
  'Tarn Planetarium – The night sky over the firth',
  'Sailing times, fares and news – Sallow Ferries',
  'AVATAR To. We LT, Ty: “Yes” (P.A.) 1/2 – 50 % off!',
  'Crème brûlée à l’Œuvre, naïve façade, Ångström, Dvořák, Łódź, İstanbul, Việt Nam',
  'Кошки и собаки: расписание на завтра',
  'Ελληνική γλώσσα και πολιτισμός',
  'שלום עולם, ברוכים הבאים',
  'Smørrebrød & Æbleskiver ß ÿ Þ ð',
  'WAWAWA iiiiii llllll mmmmmm 0123456789',
  'Kites, winches and line — made by hand in Windrow since 1931…',
  '€ 12,50 · £ 9.99 · $ 15 · 20 °C',
  'e\u0301 combining, n\u0303 and u\u0308',
];

describe('the width of a text', () => {
  it.each(SENTENCES)('%s', async (text) => {
    const [theirs] = await measure([text]);
    expect(
      Math.abs(textWidth(text, 20) - theirs!),
      `${textWidth(text, 20)} here, ${theirs} there`,
    ).toBeLessThanOrEqual(0.05);
  });
  it('every letter of Latin, Greek and Cyrillic that the face has', async () => {
    const letters = [
      ...Array.from({ length: 0x24f - 0x21 }, (_, i) => i + 0x21),
      ...Array.from({ length: 0x3ce - 0x391 }, (_, i) => i + 0x391),
      ...Array.from({ length: 0x45f - 0x401 }, (_, i) => i + 0x401),
    ]
      .map((c) => String.fromCodePoint(c))
      .filter((c) => /[\p{L}\p{N}\p{P}\p{S}]/u.test(c) && c !== '\u00ad');
    const theirs = await measure(letters.map((l) => l.repeat(5)));
    const off = letters.flatMap((l, i) =>
      Math.abs(textWidth(l.repeat(5), 20) - theirs[i]!) > 0.1
        ? [`${l} ${textWidth(l.repeat(5), 20)} ${theirs[i]}`]
        : [],
    );
    expect(letters.length).toBeGreaterThan(600);
    expect(off).toEqual([]);
  });
  /** Words as a listing has them, of the letters of each script; the same in every run. */
  const SCRIPTS: Record<string, string> = {
    Latin: 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZàâäåæçéèêëíîïñóôöøœúûüßłżőčřşğ0123456789',
    Greek: 'αβγδεζηθικλμνξοπρστυφχψωάέήίόύώΑΒΓΔΕΖΗΘΙΚΛΜΝΞΟΠΡΣΤΥΦΧΨΩς0123456789',
    Cyrillic: 'абвгдежзийклмнопрстуфхцчшщъыьэюяіїєґАБВГДЕЖЗИКЛМНОПРСТУФХЦЧШЩЭЮЯ0123456789',
    Hebrew: 'אבגדהוזחטיכלמנסעפצקרשתךםןףץ0123456789',
  };
  const MARKS = [' ', ' ', ' ', ' – ', ', ', '. ', ': ', ' & ', ' | '];
  it.each(Object.keys(SCRIPTS))('75 texts in %s are within a pixel of their layout', async (script) => {
    const letters = [...SCRIPTS[script]!];
    let state = 20261127;
    const below = (n: number): number => {
      state = (Math.imul(state, 1103515245) + 12345) >>> 0;
      return (state >>> 8) % n;
    };
    const word = (): string =>
      Array.from({ length: 1 + below(11) }, () => letters[below(letters.length)]).join('');
    const texts = Array.from({ length: 75 }, () =>
      Array.from({ length: 2 + below(9) }, word).reduce((all, w) => all + MARKS[below(MARKS.length)] + w),
    );
    const theirs = await measure(texts);
    const off = texts.filter((t, i) => Math.abs(textWidth(t, 20) - theirs[i]!) > 1);
    expect(new Set(texts).size).toBe(75);
    expect(off).toEqual([]);
  });
});
