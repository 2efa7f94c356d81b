/**
 * `npm run new-check -- SECTION.NAME [head|body]`: makes a check's file, its test, its planted fault in the head or
 * body of pages, and its lines in the catalogue and the client's report. Its rule is still to be written, and its test
 * says so. Whatever is there already is left alone.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT } from './packages.mjs';

const camel = (name) => name.replace(/-([a-z0-9])/g, (_, letter) => letter.toUpperCase());

/** Where the fault is planted, what it looks like there, and the rule that finds it. */
const PLANTED = {
  head: {
    where: 'function plantedTags',
    sign: (id) => `<meta name="${id}" content="what the fault looks like">`,
    test: () => '{ head: SIGN }',
    find: (id) => `page.facts.metas.find((meta) => meta.name === '${id}')`,
    raw: 'found.raw',
  },
  body: {
    where: 'function faultLines',
    sign: (id) => `<p>What ${id} looks like</p>`,
    test: () => '{ body: SIGN }',
    find: (id) => `/What ${id.replace('.', '\\.')} looks like/.exec(page.facts.text)`,
    raw: 'found[0]',
  },
};

const check = (id, name, { find, raw }) => `import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

/** What it may find, each under a code that stays. German is in core/report/texts/found-de.ts. */
const msg = defineMessages('${id}', {
  found: 'what was found, in a few words',
});

export const ${name} = defineCheck({
  id: '${id}',
  title: 'What is so on a good page (${name})',
  fault: 'What is wrong where it failed (${name})',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'What goes wrong where it is not so, in one sentence.',
  source: 'common practice',
  messages: { expected: 'what a good page looks like' },
  judge: (context) =>
    overPages(context, (page) => {
      const found = ${find(id)};
      return found ? failed(page.url, { found: msg('found'), raw: ${raw} }) : page.passed;
    }),
  recipe: () => ({ steps: 'How to put it right.' }),
});
`;

const test = (id, { sign, test }) => `import { describe, expect, it } from 'vitest';
import { outcome } from '#core/checks/example-evidence';

const SIGN = '${sign(id)}';

describe('${id}', () => {
  it.each([
    ['as it should be', {}, 'passed'],
    ['with the fault', ${test()}, 'failed'],
  ])('%s', (_, home, wanted) => {
    expect(outcome('${id}', home)).toBe(wanted);
  });
  it('has a rule of its own', () => {
    // remove this once the rule is written
    expect('the rule in ${id}').toBe('written');
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
 * @param place where its fault is planted: `head` or `body`
 * @returns the files that were made or changed
 */
export function newCheck(root, id, place = 'head') {
  const [, section, file] = /^([a-z]+)\.([a-z][a-z0-9-]*)$/.exec(id ?? '') ?? [];
  if (!file) throw new Error('npm run new-check -- SECTION.NAME [head|body], as in metadata.title-length');
  const planted = PLANTED[place];
  if (!planted) throw new Error(`A fault is planted into the head or the body, not into the “${place}”`);
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
    found: join(root, 'core/report/texts/found-de.ts'),
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
    check: check(id, name, planted),
    test: test(id, planted),
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
      `when(is('${file}', 1), '${planted.sign(id)}'),\n`,
      pages.indexOf('return [', pages.indexOf(planted.where)),
    ),
    english: withSentences('english'),
    german: withSentences('german'),
    found: insertBefore(
      readFileSync(paths.found, 'utf8'),
      '\n};',
      `\n  '${id}/found': 'was gefunden wurde, in wenigen Worten',`,
    ),
  };
  for (const [key, path] of Object.entries(paths)) writeFileSync(path, made[key]);
  return Object.values(paths);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  try {
    const files = newCheck(ROOT, process.argv[2], process.argv[3]);
    spawnSync(join(ROOT, 'node_modules/.bin/prettier'), ['--log-level=error', '--write', ...files], {
      stdio: 'inherit',
    });
    process.stdout.write(`${files.map((f) => f.slice(ROOT.length + 1)).join('\n')}\n`);
  } catch (error) {
    process.stderr.write(`${error.message}\n`);
    process.exit(2);
  }
