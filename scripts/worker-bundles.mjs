/** Bundles the server's threads, each into one file. */
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/**
 * A program as the server's threads are built.
 * @param entry its source, from the project's root
 * @param outfile where it goes
 */
export async function bundle(entry, outfile) {
  await build({
    entryPoints: [join(ROOT, entry)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'error',
    // the classes of entry are decorated
    tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } },
    // its own machine code lies beside it
    external: ['sharp'],
    banner: {
      js: "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);",
    },
  });
  return outfile;
}

/** The thread that reads pages. @param outfile where the program goes */
export const bundleExtractWorker = (outfile) => bundle('probe/extract-worker.ts', outfile);
/** The thread that judges stored evidence. */
export const bundleJudgeWorker = (outfile) => bundle('server/audits/judge-worker.ts', outfile);
/** The thread that reads uploaded builds. */
export const bundleBuildsWorker = (outfile) => bundle('server/builds/builds-worker.ts', outfile);
/** The thread that compares audits. */
export const bundleCompareWorker = (outfile) => bundle('server/comparing/compare-worker.ts', outfile);
/** The thread that makes tables of pages. */
export const bundlePagesWorker = (outfile) => bundle('server/pages/pages-worker.ts', outfile);
/** The thread that reads tables of sites. */
export const bundleTablesWorker = (outfile) => bundle('server/sites/tables-worker.ts', outfile);
/** The process that reads and writes pictures. */
export const bundlePicturesWorker = (outfile) => bundle('server/pictures/pictures-worker.ts', outfile);
