/**
 * Facts that came after the first audits were kept. Evidence of then does not have them, and a fact that was not
 * collected is not a fact that is absent: evidence says which of them it lacks, a check declares which it reads, and
 * the engine says that it can't tell where one is missing.
 */
/** Of a page. */
export const LATER_PAGE_FACTS = ['bylines', 'unnamed', 'hidden'] as const;
/** Of hosts, records and the site. */
export const LATER_SITE_FACTS = [
  'addresses',
  'signature',
  'namedBy',
  'parent',
  'randomLabel',
  'subdomains',
  'links',
  'folders',
  'former',
  'variants',
  'freshness',
  'manifest',
] as const;

export type LaterPageFact = (typeof LATER_PAGE_FACTS)[number];
export type LaterSiteFact = (typeof LATER_SITE_FACTS)[number];
export type LaterFact = LaterPageFact | LaterSiteFact;

/** What does not have some of them: evidence as a whole, or a page. */
interface Lacking {
  lacks?: readonly LaterFact[];
}

/** Whether evidence lacks one of these facts, as a whole or on a page. */
export function lacksAny(
  { lacks = [], pages }: Lacking & { pages: readonly Lacking[] },
  facts: readonly LaterFact[],
): boolean {
  const isLacking = (missing: readonly LaterFact[] = []): boolean =>
    missing.some((fact) => facts.includes(fact));
  return isLacking(lacks) || pages.some((page) => isLacking(page.lacks));
}
