/** Which fixes a list shows: what stands in the address of the screen. */
export interface FixFilter {
  words?: string;
  check?: string;
  site?: string;
  owner?: string;
  closed?: '1';
}

const KEYS = ['words', 'check', 'site', 'owner', 'closed'] as const;

/** Reads a filter from an address's query; what is empty or not understood is left out. */
export function filterFrom(query: Record<string, unknown>): FixFilter {
  const texts = KEYS.flatMap((key) => {
    const value = query[key];
    return typeof value === 'string' && value ? [[key, value] as const] : [];
  });
  const { closed, ...filter } = Object.fromEntries(texts) as Record<string, string>;
  return { ...filter, ...(closed === '1' ? { closed } : {}) };
}
