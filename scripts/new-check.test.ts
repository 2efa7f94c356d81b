/** What `npm run new-check` makes, in a copy of the files that it changes. */
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newCheck } from './new-check.mjs';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const CATALOGUE = 'core/checks/catalogue';
const TEXTS = ['core/report/texts/checks-en.ts', 'core/report/texts/checks-de.ts'];
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
    expect(newCheck(copy, 'metadata.no-marquee')).toHaveLength(7);
    for (const file of TEXTS) expect(read(file)).toContain("'metadata.no-marquee': [");
    expect(read(`${CATALOGUE}/metadata/no-marquee.ts`)).toContain("id: 'metadata.no-marquee'");
    expect(read(`${CATALOGUE}/metadata/no-marquee.test.ts`)).toContain("describe('metadata.no-marquee'");
    expect(read('net/faults.ts')).toContain("f('no-marquee', 'metadata.no-marquee'");
    expect(read('net/pages.ts')).toContain("when(is('no-marquee', 1)");
    const index = read(`${CATALOGUE}/index.ts`);
    expect(index).toContain("import { noMarquee } from '#core/checks/catalogue/metadata/no-marquee';");
    // at the end of its section
    expect(index).toMatch(/ {2}handAccessibility,\n {2}noMarquee,\n {2}previewComplete,/);
  });
  it('leaves alone what is there already', () => {
    expect(existsSync(join(copy, `${CATALOGUE}/metadata/no-marquee.ts`))).toBe(true);
    expect(() => newCheck(copy, 'metadata.no-marquee')).toThrow('there already');
  });
});
