/** What `npm run new-check` makes, in a copy of the files that it changes. */
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newCheck } from './new-check.mjs';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const CATALOGUE = 'core/checks/catalogue';
const TEXTS = ['checks-en', 'checks-de', 'found-de'].map((name) => `core/report/texts/${name}.ts`);
let copy: string;
const read = (file: string): string => readFileSync(join(copy, file), 'utf8');
beforeAll(() => {
  copy = mkdtempSync(join(tmpdir(), 'armband-new-check-'));
  mkdirSync(join(copy, CATALOGUE, 'metadata'), { recursive: true });
  for (const file of [`${CATALOGUE}/index.ts`, 'net/faults.ts', 'net/pages.ts', ...TEXTS])
    cpSync(join(ROOT, file), join(copy, file));
});
afterAll(() => {
  rmSync(copy, { recursive: true, force: true });
});

describe('npm run new-check', () => {
  it.each([
    ['no name', undefined],
    ['a name without its section', 'no-marquee'],
    ['a section that is not there', 'weather.no-rain'],
    ['a name that is no file name', 'metadata.../x'],
    ['a name that another section has', 'sharing.language'],
  ])('%s is refused, and nothing is written', (_, id) => {
    const before = read(`${CATALOGUE}/index.ts`);
    expect(() => newCheck(copy, id)).toThrow();
    expect(read(`${CATALOGUE}/index.ts`)).toBe(before);
  });
  it('makes the check, its test, its fault and its lines in the catalogue', () => {
    expect(newCheck(copy, 'metadata.no-marquee')).toHaveLength(8);
    for (const file of TEXTS) expect(read(file)).toMatch(/'metadata\.no-marquee(?:': \[|\/found': )/);
    expect(read(`${CATALOGUE}/metadata/no-marquee.ts`)).toContain("id: 'metadata.no-marquee'");
    expect(read(`${CATALOGUE}/metadata/no-marquee.test.ts`)).toContain("describe('metadata.no-marquee'");
    expect(read('net/faults.ts')).toContain("f('no-marquee', 'metadata.no-marquee'");
    const pages = read('net/pages.ts');
    expect(pages.indexOf("when(is('no-marquee', 1)")).toBeLessThan(pages.indexOf('function faultLines'));
    const index = read(`${CATALOGUE}/index.ts`);
    expect(index).toContain("import { noMarquee } from '#core/checks/catalogue/metadata/no-marquee';");
    // at the end of its section
    expect(index).toMatch(/ {2}handAccessibility,\n {2}noMarquee,\n {2}previewComplete,/);
  });
  it('plants a fault into the body where it is told so', () => {
    newCheck(copy, 'metadata.no-blink', 'body');
    const pages = read('net/pages.ts');
    expect(pages.indexOf("when(is('no-blink', 1)")).toBeGreaterThan(pages.indexOf('function faultLines'));
    expect(() => newCheck(copy, 'metadata.no-frames', 'foot')).toThrow('head or the body');
    expect(existsSync(join(copy, `${CATALOGUE}/metadata/no-frames.ts`))).toBe(false);
  });
  it('leaves alone what is there already', () => {
    expect(existsSync(join(copy, `${CATALOGUE}/metadata/no-marquee.ts`))).toBe(true);
    expect(() => newCheck(copy, 'metadata.no-marquee')).toThrow('there already');
  });
});
