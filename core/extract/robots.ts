/** robots.txt by RFC 9309: parsing, choosing a group, and the longest match. */

export interface RobotsRule {
  allow: boolean;
  pattern: string;
  line: number;
  raw: string;
}
export interface RobotsGroup {
  agents: string[];
  rules: RobotsRule[];
}
export interface RobotsFile {
  groups: RobotsGroup[];
  sitemaps: { url: string; line: number }[];
  /** Lines that no parser will heed, with the reason. */
  oddities: { line: number; raw: string; reason: string }[];
  bytes: number;
}

/** RFC 9309 2.5: a crawler must read at least this much. */
export const ROBOTS_LIMIT = 500 * 1024;

const KNOWN = new Set([
  'user-agent',
  'allow',
  'disallow',
  'sitemap',
  'crawl-delay',
  'host',
  'clean-param',
  'request-rate',
  'visit-time',
  'noindex',
  'content-signal',
]);
const NEAR = ['user-agent', 'allow', 'disallow', 'sitemap'];

function near(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 2) return false;
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next[j] = Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1));
    row = next;
  }
  return row[b.length]! <= 2;
}

/**
 * Parses a robots.txt. Consecutive user-agent lines open one group; sitemap and unknown lines do not close it
 * (RFC 9309 2.1, 2.2.4).
 */
export function parseRobots(source: string): RobotsFile {
  const file: RobotsFile = {
    groups: [],
    sitemaps: [],
    oddities: [],
    bytes: new TextEncoder().encode(source).length,
  };
  let group: RobotsGroup | null = null;
  let collecting = false;
  const lines = source
    .slice(0, ROBOTS_LIMIT)
    .replace(/^\ufeff/, '')
    .split(/\r\n|\r|\n/);
  lines.forEach((full, index) => {
    const raw = full.slice(0, 300);
    const content = full.split('#')[0]!.trim();
    if (!content) return;
    const colon = content.indexOf(':');
    const odd = (reason: string) => {
      if (file.oddities.length < 200) file.oddities.push({ line: index + 1, raw, reason });
    };
    if (colon < 1) {
      odd('no field name before a colon');
      return;
    }
    const field = content.slice(0, colon).trim().toLowerCase();
    const value = content.slice(colon + 1).trim();
    if (field === 'user-agent') {
      if (!group || !collecting) {
        group = { agents: [], rules: [] };
        file.groups.push(group);
      }
      group.agents.push(value.toLowerCase());
      collecting = true;
    } else if (field === 'allow' || field === 'disallow') {
      if (!group) {
        odd('a rule before any user-agent line');
        return;
      }
      collecting = false;
      group.rules.push({ allow: field === 'allow', pattern: value, line: index + 1, raw });
    } else if (field === 'sitemap') {
      file.sitemaps.push({ url: value, line: index + 1 });
    } else if (!KNOWN.has(field)) {
      const meant = NEAR.find((k) => near(field, k));
      if (meant) odd(`unknown field, perhaps "${meant}" was meant`);
    }
  });
  return file;
}

/** The product token of a user agent line or name: letters, "_" and "-" (RFC 9309 2.2.1). */
function token(agent: string): string {
  return /^[a-z_-]*/.exec(agent.toLowerCase())![0];
}

/**
 * The rules that bind a crawler: of all groups naming it, merged, else of all `*` groups (RFC 9309 2.2.1).
 * @returns undefined when no group applies at all
 */
export function rulesFor(file: RobotsFile, crawler: string): RobotsRule[] | undefined {
  const wanted = token(crawler);
  const own = wanted ? file.groups.filter((g) => g.agents.some((a) => a !== '*' && token(a) === wanted)) : [];
  const chosen = own.length ? own : file.groups.filter((g) => g.agents.includes('*'));
  return chosen.length ? chosen.flatMap((g) => g.rules) : undefined;
}

const UNRESERVED = /^[A-Za-z0-9\-._~]$/;

/** Octets that mean something in a pattern, so that literally they can only stand there encoded (2.2.3). */
const SPECIAL: Record<string, string> = { '*': '%2A', $: '%24' };

/**
 * Octets in one spelling: unreserved ones plain, all others percent-encoded with capitals; reserved octets
 * stay as they came (RFC 9309 2.2.2, RFC 3986 2.2), but for `*` and `$`, which are what `%2A` and `%24` in a
 * pattern stand for (RFC 9309 2.2.3).
 */
function normalisePath(path: string): string {
  if (/^[\x00-\x23\x26-\x29\x2b-\x7f]*$/.test(path)) return path;
  let out = '';
  const bytes = new TextEncoder();
  for (let i = 0; i < path.length;) {
    const encoded = /^%([0-9a-fA-F]{2})/.exec(path.slice(i, i + 3));
    if (encoded) {
      const ch = String.fromCharCode(parseInt(encoded[1]!, 16));
      out += UNRESERVED.test(ch) ? ch : `%${encoded[1]!.toUpperCase()}`;
      i += 3;
      continue;
    }
    const cp = String.fromCodePoint(path.codePointAt(i)!);
    out +=
      cp.codePointAt(0)! < 0x80
        ? (SPECIAL[cp] ?? cp)
        : [...bytes.encode(cp)].map((b) => `%${b.toString(16).toUpperCase().padStart(2, '0')}`).join('');
    i += cp.length;
  }
  return out;
}

/** What stands between the wildcards of a pattern, and whether it must reach the end. */
function partsOf(pattern: string): { pieces: string[]; anchored: boolean } {
  const anchored = pattern.endsWith('$');
  const text = anchored ? pattern.slice(0, -1) : pattern;
  return { pieces: text.split('*').map(normalisePath), anchored };
}

/** Octets of a pattern in one spelling: the most specific rule has most of them (RFC 9309 2.2.2). */
function octetsOf(pattern: string): number {
  const { pieces, anchored } = partsOf(pattern);
  return pieces.join('*').length + (anchored ? 1 : 0);
}

/**
 * Whether a pattern with `*` and a final `$` matches from the start of a path. Linear in their product: no
 * regular expressions from foreign text.
 */
export function patternMatches(pattern: string, path: string): boolean {
  const { pieces, anchored } = partsOf(pattern);
  if (!path.startsWith(pieces[0]!)) return false;
  let at = pieces[0]!.length;
  for (let i = 1; i < pieces.length; i++) {
    const piece = pieces[i]!;
    if (anchored && i === pieces.length - 1) return path.length - piece.length >= at && path.endsWith(piece);
    const next = path.indexOf(piece, at);
    if (next < 0) return false;
    at = next + piece.length;
  }
  return !anchored || at === path.length;
}

/**
 * Whether a crawler may fetch an address: the longest matching rule decides, allow wins a tie, no rule allows
 * (RFC 9309 2.2.2).
 * @returns the verdict and the rule that decided, if any
 */
export function mayFetch(
  file: RobotsFile,
  crawler: string,
  url: string,
): { allowed: boolean; rule?: RobotsRule } {
  const u = new URL(url);
  const path = normalisePath(u.pathname + u.search);
  if (path === '/robots.txt') return { allowed: true };
  let best: RobotsRule | undefined;
  let length = -1;
  for (const rule of rulesFor(file, crawler) ?? []) {
    if (rule.pattern === '' || !patternMatches(rule.pattern, path)) continue;
    const size = octetsOf(rule.pattern);
    if (size > length || (size === length && rule.allow)) {
      best = rule;
      length = size;
    }
  }
  return { allowed: best?.allow ?? true, rule: best };
}
