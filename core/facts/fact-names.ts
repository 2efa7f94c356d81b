/**
 * The names of facts. A fact that was not collected is not a fact that is absent: evidence says which of them it lacks,
 * a check declares which it reads, and the engine says that it can't tell where one is missing.
 */
/** What a page is read by at all: a check that needs pages reads these. */
export const BASIC_PAGE_FACTS = [
  'titles',
  'metas',
  'links',
  'scripts',
  'headings',
  'anchors',
  'forms',
  'text',
  'textLength',
] as const;
/** Of a page, beside those. */
export const PAGE_FACTS = [
  'lang',
  'images',
  'resources',
  'jsonLd',
  'bylines',
  'unnamed',
  'hidden',
  'css',
] as const;
/** Of hosts, records and the site. */
export const SITE_FACTS = [
  'robots',
  'sitemaps',
  'assets',
  'notFound',
  'paths',
  'tokenFiles',
  'registration',
  'bypass',
  'addresses',
  'signature',
  'namedBy',
  'parent',
  'randomLabel',
  'subdomains',
  'otherLinks',
  'folders',
  'former',
  'variants',
  'freshness',
  'manifest',
  'mtaSts',
] as const;
/** Of what a browser saw. */
export const RENDERED_FACTS = [
  'rendered.errors',
  'rendered.failed',
  'rendered.cookies',
  'rendered.hits',
  'rendered.beforeConsent',
  'rendered.layoutShift',
  'rendered.layout',
  'rendered.facts',
] as const;

export type PageFact = (typeof PAGE_FACTS)[number];
export type SiteFact = (typeof SITE_FACTS)[number];
export type RenderedFact = (typeof RENDERED_FACTS)[number];
/** What a check declares. */
export type Fact = PageFact | SiteFact | RenderedFact;
type Lackable = Fact | (typeof BASIC_PAGE_FACTS)[number];

/** What does not have some of them: evidence as a whole, a page, or what a browser saw. */
interface Lacking {
  lacks?: readonly Lackable[];
}

/** All that evidence lacks, as a whole, on some page, or of what a browser saw. */
export function lackingIn({
  lacks = [],
  pages,
  rendered,
}: Lacking & { pages: readonly Lacking[]; rendered?: Lacking }): ReadonlySet<Lackable> {
  const all = new Set<Lackable>(lacks);
  for (const page of pages) for (const fact of page.lacks ?? []) all.add(fact);
  for (const fact of rendered?.lacks ?? []) all.add(fact);
  return all;
}

/** Whether one of the facts that a check reads is lacking. */
export function lacksFor(
  { facts = [], needs }: { facts?: readonly Fact[]; needs: { pages?: true } },
  lacking: ReadonlySet<Lackable>,
): boolean {
  if (!lacking.size) return false;
  return (
    facts.some((f) => lacking.has(f)) ||
    (needs.pages === true && BASIC_PAGE_FACTS.some((f) => lacking.has(f)))
  );
}
