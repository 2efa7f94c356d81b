/** The threads that read pages for this server. */
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ExtractPool } from '#probe/extract-pool';
import { extractHere, type Extract } from '#probe/extractor';

let pool: ExtractPool | undefined;

/** In threads where the build has their code beside the server; else, in development, in this one. */
export function serverExtract(): Extract {
  const file = join(dirname(process.argv[1] ?? ''), 'extract-worker.mjs');
  if (!existsSync(file)) return extractHere;
  pool ??= new ExtractPool({ file });
  return pool.extract;
}

export async function endExtraction(): Promise<void> {
  await pool?.close();
}
