/** Structured data (JSON-LD) as a tree to look through. */

export interface JsonNode {
  /** Where it stands: the keys and numbers that lead to it, joined by slashes. */
  path: string;
  /** Its key or its number in a list; nothing for the whole. */
  key: string;
  /** What it is, where it is no list and no object: as it stands in JSON. */
  value?: string;
  /** Of an object its type, of a list how long it is. */
  kind?: string;
  children?: JsonNode[];
}

/** More is not drawn: the raw text has all. */
const MOST_NODES = 2000;
const DEEPEST = 30;

/** What an object says that it is (JSON-LD 1.1 "@type"). */
function kindOf(value: object): string {
  if (Array.isArray(value)) return `list of ${value.length}`;
  const type = (value as Record<string, unknown>)['@type'];
  return typeof type === 'string' ? type : Array.isArray(type) ? type.join(', ') : 'object';
}

/** @param value parsed JSON; @returns its parts as far as they are drawn */
export function jsonTree(value: unknown): JsonNode[] {
  let left = MOST_NODES;
  const partsOf = (whole: object, path: string, depth: number): JsonNode[] =>
    Object.entries(whole).flatMap(([key, part]) => {
      if (left-- <= 0) return [];
      return [nodeOf(part, key, path ? `${path}/${key}` : key, depth)];
    });
  function nodeOf(part: unknown, key: string, path: string, depth: number): JsonNode {
    if (typeof part !== 'object' || part === null) return { path, key, value: JSON.stringify(part) };
    const kind = kindOf(part);
    if (depth >= DEEPEST || !Object.keys(part).length) return { path, key, kind };
    return { path, key, kind, children: partsOf(part, path, depth + 1) };
  }
  return typeof value === 'object' && value !== null
    ? partsOf(value, '', 0)
    : [{ path: '', key: '', value: JSON.stringify(value) }];
}
