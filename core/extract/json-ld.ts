/** Inline JSON-LD blocks. */
export interface JsonLdBlock {
  line: number;
  column: number;
  /** Top-level nodes, and those within them that have a type of their own (`nested`). */
  nodes: JsonLdNode[];
  /** Web addresses anywhere in the block, each once (capped). */
  addresses?: string[];
  error?: string;
  raw: string;
}
export interface JsonLdNode {
  types: string[];
  name?: string;
  url?: string;
  telephone?: string;
  email?: string;
  logo?: string;
  author?: string;
  sameAs?: string[];
  /** Stands within another node, as the value of this property. */
  nested?: string;
  hasContext: boolean;
}

const text = (v: unknown): string | undefined => (typeof v === 'string' ? v.slice(0, 1000) : undefined);

/** A picture or thing given as an address or as an object with one. */
function addressOf(v: unknown): string | undefined {
  const one = Array.isArray(v) ? (v[0] as unknown) : v;
  return (
    text(one) ??
    (typeof one === 'object' && one !== null
      ? (text((one as Record<string, unknown>).url) ??
        text((one as Record<string, unknown>).contentUrl) ??
        text((one as Record<string, unknown>)['@id']))
      : undefined)
  );
}
/** A person given by name or as an object with one. */
function nameOf(v: unknown): string | undefined {
  const one = Array.isArray(v) ? (v[0] as unknown) : v;
  return (
    text(one) ??
    (typeof one === 'object' && one !== null ? text((one as Record<string, unknown>).name) : undefined)
  );
}
function list(v: unknown): string[] | undefined {
  const all = (Array.isArray(v) ? v : [v]).filter((x): x is string => typeof x === 'string').slice(0, 30);
  return all.length ? all : undefined;
}

function nodeOf(value: unknown, context: boolean): JsonLdNode | null {
  if (typeof value !== 'object' || value === null) return null;
  const o = value as Record<string, unknown>;
  const type = o['@type'];
  const types = (Array.isArray(type) ? type : [type]).filter((t): t is string => typeof t === 'string');
  return {
    types,
    name: text(o.name),
    url: text(o.url),
    telephone: text(o.telephone),
    email: text(o.email),
    logo: addressOf(o.logo),
    author: nameOf(o.author),
    sameAs: list(o.sameAs),
    hasContext: context || o['@context'] !== undefined,
  };
}

const MOST_NODES = 100;
const MOST_ADDRESSES = 50;
/** Deeper nobody nests, but for fun. */
const DEEPEST = 8;

/** Adds the typed nodes that stand within another one: a page's publisher, a person's employer. */
function addNested(value: unknown, nodes: JsonLdNode[], depth: number): void {
  if (typeof value !== 'object' || value === null || depth > DEEPEST) return;
  for (const [property, held] of Object.entries(value)) {
    if (property === '@graph' && depth === 0) continue;
    for (const one of Array.isArray(held) ? (held as unknown[]) : [held]) {
      if (typeof one !== 'object' || one === null) continue;
      const node = nodeOf(one, true);
      if (node?.types.length && nodes.length < MOST_NODES)
        nodes.push({ ...node, nested: property.slice(0, 60) });
      addNested(one, nodes, depth + 1);
    }
  }
}

/** Web addresses among all values. */
function addressesIn(data: unknown): string[] {
  const found = new Set<string>();
  const walk = (value: unknown, depth: number): void => {
    if (found.size >= MOST_ADDRESSES || depth > DEEPEST * 2) return;
    if (typeof value === 'string') {
      if (/^https?:\/\//i.test(value)) found.add(value.slice(0, 1000));
    } else if (typeof value === 'object' && value !== null)
      for (const held of Object.values(value)) walk(held, depth + 1);
  };
  walk(data, 0);
  return [...found];
}

/**
 * Parses one block. Its top-level nodes are the object itself, an array's members or the members of `@graph`
 * (JSON-LD 1.1, 2.3).
 */
export function readJsonLd(source: string, line: number, column: number): JsonLdBlock {
  const raw = source.trim().slice(0, 2000);
  try {
    const data: unknown = JSON.parse(source);
    const nodes: JsonLdNode[] = [];
    for (const top of Array.isArray(data) ? data : [data]) {
      const graph = (top as Record<string, unknown> | null)?.['@graph'];
      const context = (top as Record<string, unknown> | null)?.['@context'] !== undefined;
      for (const item of Array.isArray(graph) ? graph : [top]) {
        const node = nodeOf(item, context);
        if (node && nodes.length < MOST_NODES) nodes.push(node);
        addNested(item, nodes, 0);
      }
    }
    const addresses = addressesIn(data);
    return { line, column, nodes, ...(addresses.length ? { addresses } : {}), raw };
  } catch (error) {
    return { line, column, nodes: [], raw, error: (error as Error).message.slice(0, 200) };
  }
}
