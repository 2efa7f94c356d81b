/** Which pages a browser looks at. */
import { normaliseUrl } from '#core/extract/address';
import { finalStatus, type PageEvidence } from '#core/facts/evidence';

/**
 * The home page, the required ones, and some more in the order in which they were found.
 * @param base what the brief's paths are below
 * @param more how many beside those
 */
export function pagesToRender(
  pages: readonly PageEvidence[],
  { base, required }: { base: string; required: readonly string[] },
  more: number,
): string[] {
  const wanted = new Set(required.flatMap((path) => normaliseUrl(path, base) ?? []));
  const chosen = new Set<string>();
  const others = new Set<string>();
  for (const page of pages) {
    // a holding page says 503, and is a page all the same
    const isShown =
      finalStatus(page.chain) === 200 || (page.via === 'home' && finalStatus(page.chain) === 503);
    if (!page.facts || !isShown) continue;
    const isNamed = page.via === 'home' || wanted.has(page.url) || wanted.has(page.requested);
    (isNamed ? chosen : others).add(page.url);
  }
  return [...chosen, ...[...others].filter((url) => !chosen.has(url)).slice(0, more)];
}
