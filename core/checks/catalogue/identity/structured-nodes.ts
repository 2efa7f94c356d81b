/** Nodes of JSON-LD by their schema.org type. */
import type { JsonLdNode } from '#core/extract/json-ld';
import type { ReadPage } from '#core/checks/view/read-page';

/**
 * Organization and its subtypes that agencies meet (schema.org, from memory): any type that ends in one of
 * these words, and a list of those that do not say so.
 */
const ORGANISATIONS =
  /(?:Organization|Business|Store|Restaurant|Corporation|School|University|NGO|Club|Museum|Theater|Library|Company|Service|Agency|Bakery|Hotel|Attraction|Team|Group|Choir|Airline)$/;

export function isOrganisation(node: JsonLdNode): boolean {
  return node.types.some((t) => ORGANISATIONS.test(t.replace(/^https?:\/\/schema\.org\//, '')));
}
export function nodesOf(page: ReadPage | undefined): JsonLdNode[] {
  return page?.facts.jsonLd.flatMap((b) => b.nodes) ?? [];
}
