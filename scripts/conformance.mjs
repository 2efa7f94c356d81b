/**
 * `npm run conformance`: writes docs/conformance.md from the tests: each check with the source it rests on
 * and the number of cases that name it, and what is compared with something outside.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { ensureCommand } from './build-cli.mjs';
import { ROOT } from './packages.mjs';

const results = join(ROOT, 'test-results');
/** The results that `npm test` left, or those of a run now. */
function testsOf(project) {
  const file = join(results, `${project}.json`);
  if (!existsSync(file))
    spawnSync(
      join(ROOT, 'node_modules/.bin/vitest'),
      ['run', '--project', project, '--reporter=json', `--outputFile.json=${file}`],
      { cwd: ROOT, stdio: ['ignore', 'ignore', 'inherit'] },
    );
  return JSON.parse(readFileSync(file, 'utf8')).testResults.flatMap((t) =>
    t.assertionResults.filter((a) => a.status === 'passed').map((a) => ({ file: t.name, name: a.fullName })),
  );
}
const listed = spawnSync(process.execPath, [await ensureCommand(), '--list'], {
  cwd: ROOT,
  encoding: 'utf8',
  maxBuffer: 16 * 1024 * 1024,
});
if (listed.status !== 0) throw new Error(listed.stderr);
const catalogue = JSON.parse(listed.stdout);
const tests = ['unit', 'faults', 'real-servers', 'integration'].flatMap(testsOf);

const cell = (text) => text.replace(/\|/g, '\\|').replace(/\s+/g, ' ').trim();
const named = (id) => new RegExp(`(?:^|[^a-z.-])${id.replaceAll('.', '\\.')}(?:$|[^a-z-])`);
const rows = catalogue.map((c) => {
  const is = named(c.id);
  return {
    ...c,
    cases: tests.filter((t) => is.test(t.name)).length,
    practice: /common practice/i.test(c.source),
  };
});

/** What a test file says of itself in its first comment. */
const about = (file) =>
  /\/\*\*[\s*]*([\s\S]*?)\*\//
    .exec(readFileSync(file, 'utf8'))?.[1]
    ?.replace(/\s*\n\s*\*?\s*/g, ' ')
    .trim() ?? '';
const outside = [
  ...readdirSync(join(ROOT, 'tests/conformance'))
    .filter((f) => f.endsWith('.test.ts'))
    .map((f) => join(ROOT, 'tests/conformance', f)),
  ...['verdicts', 'recipes', 'recipes-together', 'holding', 'commands'].map((f) =>
    join(ROOT, 'tests/real-servers', `${f}.test.ts`),
  ),
  ...['outside', 'text-width', 'launch-on-bind'].map((f) => join(ROOT, 'tests/integration', `${f}.test.ts`)),
  join(ROOT, 'tests/rendering/dom.test.ts'),
  join(ROOT, 'core/formats/findings/findings.test.ts'),
]
  .map((file) => ({ file, about: about(file), cases: tests.filter((t) => t.file === file).length }))
  .filter((f) => f.about);

const together = tests
  .filter((t) => basename(t.file) === 'recipes-together.test.ts')
  .map(({ name }) => `| ${name.replace(/^all recipes of one server together /, '')} |`);

const practice = rows.filter((r) => r.practice).length;
writeFileSync(
  join(ROOT, 'docs/conformance.md'),
  `# Conformance

Made from the tests by \`npm run conformance\`; a case is one test that passed.

## Compared with something outside the project

| test | what it is compared with | cases |
|---|---|---|
${outside.map((o) => `| ${basename(o.file, '.test.ts')} | ${cell(o.about)} | ${o.cases} |`).join('\n')}

Generated cases of property tests count as one each, whatever their number.

## Recipes by server and kind of site

All recipes of a server pasted at once, with Debian's nginx, Apache and php-fpm, on ports 80 and 443: each of these findings was gone afterwards, and no other had come.

| server | kind of site | checks |
|---|---|---|
${together.join('\n')}

## The catalogue

${rows.length} checks; ${practice} rest on common practice alone or beside a standard, and say so. Cases are the tests that name the check: its own, its recipe, and the planted faults of the practice net. Rules that hold for all checks are tested in \`core/checks/engine/judge.test.ts\`.

| check | rests on | cases |
|---|---|---|
${rows.map((r) => `| ${r.id} | ${cell(r.source)} | ${r.cases} |`).join('\n')}
`,
);
process.stdout.write(
  `docs/conformance.md: ${rows.length} checks, ${rows.reduce((n, r) => n + r.cases, 0)} cases, ${practice} of common practice, ${outside.length} comparisons\n`,
);
