/** Worker threads that read pages. */
import { extractHere, type Extract, type PageReading } from './extractor';
import { READ_BYTES, type FileFacts, type FileKind, type ReadFile } from './file-reader';
import { WorkPool, type PoolOptions } from './work-pool';

/** Pages smaller than this are read on the spot: handing them over costs more. */
const SMALL_BYTES = 4 * 1024;

export class ExtractPool {
  private readonly pool: WorkPool;
  constructor(options: PoolOptions) {
    this.pool = new WorkPool({
      words: { late: 'the page took too long to read', broken: 'the page broke the reader' },
      ...options,
    });
  }

  /** As `Extract` says. */
  readonly extract: Extract = (body, contentType, url, selectors) => {
    if (body.length < SMALL_BYTES) return extractHere(body, contentType, url, selectors);
    return this.pool
      .run({ body, contentType, url, selectors })
      .then((answer) => JSON.parse(answer) as PageReading);
  };

  /** As `ReadFile` says; a part with a memory of its own, since with a view its whole buffer would go along. */
  readonly readFile: ReadFile = <K extends FileKind>(kind: K, body: Buffer, contentType?: string) =>
    this.pool
      .run({ kind, body: new Uint8Array(body.subarray(0, READ_BYTES[kind])), contentType, url: '' })
      .then((answer) => JSON.parse(answer) as FileFacts[K]);

  close(): Promise<void> {
    return this.pool.close();
  }
}
