/** Which parts of the evidence a check rests on, by what it declares. */
import type { Check } from '#core/checks/kit/check';
import { PARTS, type Part } from '#core/facts/parts';

/** What each need is met from. */
const OF_NEED = {
  pages: 'pages',
  hosts: 'http',
  tls: 'tls',
  records: 'dns',
  rendered: 'rendered',
} as const;

/** The parts that a check reads, in the order of the parts. */
export function partsOf({ needs, reads = [] }: Pick<Check, 'needs' | 'reads'>): Part[] {
  const named = new Set<Part>(reads);
  for (const [need, part] of Object.entries(OF_NEED))
    if (needs[need as keyof typeof OF_NEED]) named.add(part);
  return PARTS.filter((part) => named.has(part));
}

/**
 * What to collect so that these checks can be judged anew.
 * @param alone there is no other evidence: what they rest on is collected too
 */
export function partsFor(checks: readonly Check[], alone = false): Part[] {
  const named = new Set(checks.flatMap(partsOf));
  // whether there are pages to judge is told by names, hosts and what robots.txt says of them
  if (alone && named.has('pages'))
    for (const part of ['dns', 'tls', 'http', 'files'] as const) named.add(part);
  if (alone && (named.has('tls') || named.has('http')))
    for (const part of ['dns', 'tls', 'http'] as const) named.add(part);
  return PARTS.filter((part) => named.has(part));
}
