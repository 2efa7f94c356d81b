const LONGEST = 60;

/** Any text as a name that every system takes for a file. */
export const plainName = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, LONGEST)
    .replace(/^-|-$/g, '') || 'site';
