/**
 * `npm run new-check -- SECTION.NAME`: makes a check's file, its test, its planted fault and its lines in the
 * catalogue. Its rule is still to be written, and its test says so. Whatever is there already is left alone.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT } from './packages.mjs';

const camel = (name) => name.replace(/-([a-z0-9])/g, (_, letter) => letter.toUpperCase());

const check = (id, name) => `import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';

export const ${name} = defineCheck({
  id: '${id}',
  title: 'What is so on a good page',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'What goes wrong where it is not so, in one sentence.',
  source: 'common practice',
  messages: { expected: 'what a good page looks like' },
  judge: (context) =>
    overPages(context, (page) => {
      const found = page.facts.metas.find((meta) => meta.name === '${id}');
      return found ? failed(page.url, { found: found.content, raw: found.raw }) : page.passed;
    }),
  recipe: () => ({ steps: 'How to put it right.' }),
});
`;

const test = (id) => `import { describe, expect, it } from 'vitest';
import { outcome } from '#core/checks/example-evidence';

describe('${id}', () => {
  it.each([
    ['as it should be', {}, 'passed'],
    ['with the fault', { body: '<p>What the fault looks like</p>' }, 'failed'],
  ])('%s', (_, home, wanted) => {
    expect(outcome('${id}', home)).toBe(wanted);
  });
});
`;

/** What a client reads of a check: what it is about, and what it means while it fails. */
const CLIENT = {
  english: ['What it is about', 'What it means for visitors while it is so.'],
  german: ['Worum es geht', 'Was es für Besucher bedeutet, solange es so ist.'],
};
const sentences = (id, [about, means]) => `\n  '${id}': ['${about}', '${means}'],`;

/** Puts a line before another, which has to be there once. */
function insertBefore(text, mark, line, from = 0) {
  const at = text.indexOf(mark, from);
  if (at < 0) throw new Error(`“${mark.trim()}” was not found`);
  return text.slice(0, at) + line + text.slice(at);
}

/** The catalogue's index with a further check at the end of its section. */
function listed(index, section, name, file) {
  const folder = `#core/checks/catalogue/${section}/`;
  const imports = [...index.matchAll(/^import \{ (\w+) \} from '([^']+)';\n/gm)].filter(([, , from]) =>
    from.startsWith(folder),
  );
  const last = imports.at(-1);
  if (!last) throw new Error(`There is no section “${section}”`);
  const end = last.index + last[0].length;
  const imported = `${index.slice(0, end)}import { ${name} } from '${folder}${file}';\n${index.slice(end)}`;
  const entry = `\n  ${last[1]},\n`;
  return insertBefore(imported, entry, `\n  ${last[1]},`).replace(
    `\n  ${last[1]},\n  ${last[1]},\n`,
    `\n  ${last[1]},\n  ${name},\n`,
  );
}

/**
 * @param root the folder of the repository
 * @param id section and name, as in metadata.title-length
 * @returns the files that were made or changed
 */
export function newCheck(root, id) {
  const [, section, file] = /^([a-z]+)\.([a-z][a-z0-9-]*)$/.exec(id ?? '') ?? [];
  if (!file) throw new Error('npm run new-check -- SECTION.NAME, as in metadata.title-length');
  const name = camel(file);
  const folder = join(root, 'core/checks/catalogue', section);
  const paths = {
    check: join(folder, `${file}.ts`),
    test: join(folder, `${file}.test.ts`),
    index: join(root, 'core/checks/catalogue/index.ts'),
    faults: join(root, 'net/faults.ts'),
    pages: join(root, 'net/pages.ts'),
    english: join(root, 'core/report/texts/checks-en.ts'),
    german: join(root, 'core/report/texts/checks-de.ts'),
  };
  if (existsSync(paths.check)) throw new Error(`${id} is there already`);
  const index = readFileSync(paths.index, 'utf8');
  if (new RegExp(`import \\{ ${name} \\}`).test(index))
    throw new Error(`Another section has a “${file}”: choose another name, or rename one import`);
  const faults = readFileSync(paths.faults, 'utf8');
  const pages = readFileSync(paths.pages, 'utf8');
  const withSentences = (language) =>
    insertBefore(readFileSync(paths[language], 'utf8'), '\n};', sentences(id, CLIENT[language]));
  // everything is made before anything is written
  const made = {
    check: check(id, name),
    test: test(id),
    index: listed(index, section, name, file),
    faults: insertBefore(
      faults,
      '\n];',
      `\n  f('${file}', '${id}', 'both', 'What a visitor would see of it'),`,
      faults.indexOf('export const FAULTS'),
    ),
    pages: insertBefore(
      pages,
      'when(',
      `when(is('${file}', 1), '<meta name="${id}" content="what the fault looks like">'),\n`,
      pages.indexOf('return [', pages.indexOf('function plantedTags')),
    ),
    english: withSentences('english'),
    german: withSentences('german'),
  };
  for (const [key, path] of Object.entries(paths)) writeFileSync(path, made[key]);
  return Object.values(paths);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  try {
    const files = newCheck(ROOT, process.argv[2]);
    spawnSync(join(ROOT, 'node_modules/.bin/prettier'), ['--log-level=error', '--write', ...files], {
      stdio: 'inherit',
    });
    process.stdout.write(`${files.map((f) => f.slice(ROOT.length + 1)).join('\n')}\n`);
  } catch (error) {
    process.stderr.write(`${error.message}\n`);
    process.exit(2);
  }
