/** Bundles the command line into one file, dist/armband.mjs, where a source is newer than that. */
import { chmodSync, existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const SOURCES = ['cli', 'core', 'probe', 'package-lock.json', 'scripts/build-cli.mjs'];
export const COMMAND = join(ROOT, 'dist', 'armband.mjs');

/** When the newest file below a path was written, in milliseconds. */
function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))));
}

const isOlder = () =>
  !existsSync(COMMAND) ||
  Math.max(...SOURCES.map((source) => newest(join(ROOT, source)))) > statSync(COMMAND).mtimeMs;

/** Makes the command where it is missing, or a source is newer. @returns its file */
export async function ensureCommand() {
  if (!isOlder()) return COMMAND;
  const { build } = await import('esbuild');
  await build({
    entryPoints: [join(ROOT, 'cli', 'main.ts')],
    outfile: COMMAND,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'error',
    // half as long to read; names stay, for what is said of an error
    minifyWhitespace: true,
    minifySyntax: true,
    keepNames: true,
    tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } },
    // loaded by whoever wants a browser, from where it lies
    external: ['playwright-core'],
    banner: {
      js: "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);",
    },
  });
  chmodSync(COMMAND, 0o755);
  return COMMAND;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await ensureCommand();
