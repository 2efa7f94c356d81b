/** Open Graph metas: `property`, and `name` as some write it (common practice: readers accept both). */
import type { MetaTag, PageFacts } from '#core/extract/html';

export function openGraph(facts: PageFacts, property: string): MetaTag | undefined {
  return facts.metas.find(m => m.property === property || m.name === property);
}
