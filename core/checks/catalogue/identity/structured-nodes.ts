/** Nodes of JSON-LD by their schema.org type. */
import organisations from './schema-organisations.json' with { type: 'json' };
import type { JsonLdNode } from '#core/extract/json-ld';
import type { ReadPage } from '#core/checks/view/read-page';

/** Organization and all its subtypes in schema.org's own tree (written by scripts/schema-types.mjs). */
const ORGANISATIONS: ReadonlySet<string> = new Set(organisations);

/** The first of a node's types that is one of these, without its vocabulary. */
export const organisationType = ({ types }: JsonLdNode): string | undefined =>
  types.map((t) => t.replace(/^(?:https?:\/\/schema\.org\/|schema:)/, '')).find((t) => ORGANISATIONS.has(t));

export const isOrganisation = (node: JsonLdNode): boolean => organisationType(node) !== undefined;
export function nodesOf(page: ReadPage | undefined): JsonLdNode[] {
  return page?.facts.jsonLd.flatMap((b) => b.nodes) ?? [];
}
