/** Comparing two audits from their packed evidence: what the thread does. */
import { compareSites, type Comparison } from '#core/compare/sites/compare-sites';
import { readEvidence } from '#server/platform/packed';

export interface CompareJob {
  first: Buffer;
  second: Buffer;
  /** What was seen of each before, the newest first. */
  earlier: { first: Buffer[]; second: Buffer[] };
}

/** Buffers that went through a message are plain bytes on the other side. */
const read = (bytes: Uint8Array) => readEvidence(Buffer.from(bytes));
const all = (list: readonly Uint8Array[]) => Promise.all(list.map(read));

export async function compareBytes({ first, second, earlier }: CompareJob): Promise<Comparison> {
  return compareSites(
    { evidence: await read(first), earlier: await all(earlier.first) },
    { evidence: await read(second), earlier: await all(earlier.second) },
  );
}
