/** Before name servers are moved: whether the new ones have every record, name by name. Pure. */
import { plainValue, sameValues, type CutOverLine } from './cut-over';
import type { SeenServer } from './watch';

export interface ComparedServer {
  name: string;
  /** How many sets of records are there as they are to be. */
  good: number;
  /** What is not, in the order of the plan. */
  differs: { name: string; type: string; wanted: string[]; found: string[]; error?: string }[];
}

/** Records that the new operator has of its own. */
const ITS_OWN = new Set(['NS', 'SOA']);

/** The lines of a plan that have to stand at the new servers. */
export const linesToCompare = (lines: readonly CutOverLine[]): CutOverLine[] =>
  lines.filter((l) => l.after.length > 0 && !ITS_OWN.has(l.type));

export function compareServers(
  servers: readonly SeenServer[],
  lines: readonly CutOverLine[],
): ComparedServer[] {
  const wanted = linesToCompare(lines);
  return servers.map(({ name, answers }) => {
    const differs = wanted.flatMap((line): ComparedServer['differs'] => {
      const answer = answers.find((a) => a.name === line.name && a.type === line.type);
      const found = (answer?.values ?? []).map((v) => plainValue(line.type, v)).sort();
      if (answer && !answer.error && sameValues(line.type, found, line.after)) return [];
      const error = answer ? answer.error : 'it was not asked';
      return [{ name: line.name, type: line.type, wanted: line.after, found, ...(error ? { error } : {}) }];
    });
    return { name, good: wanted.length - differs.length, differs };
  });
}
