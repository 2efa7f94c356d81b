/** The threads that read pages and files for this server. */
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ExtractPool } from '#probe/extract-pool';
import { extractHere, type Extract } from '#probe/extractor';
import { readFileHere, type ReadFile } from '#probe/file-reader';
import { onShutdown } from '#server/platform/shutdown';

let pool: ExtractPool | undefined;

/** In threads where the build has their code beside the server; else, in development, in this one. */
export function serverReaders(): { extract: Extract; readFile: ReadFile } {
  const file = join(dirname(process.argv[1] ?? ''), 'extract-worker.mjs');
  if (!existsSync(file)) return { extract: extractHere, readFile: readFileHere };
  pool ??= new ExtractPool({ file });
  return { extract: pool.extract, readFile: pool.readFile };
}

onShutdown(() => pool?.close());
