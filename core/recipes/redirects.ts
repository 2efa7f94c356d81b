/** Permanent redirects of single addresses as lines of a web server: nothing that is typed or harvested becomes a directive. */
import { decodeSafely, parseUrl } from '#core/extract/address';

export interface Redirected {
  from: string;
  /** An address, or `GONE`. */
  to: string;
}

/** In the place of an address: the page is gone on purpose (RFC 9110 15.5.11). */
export const GONE = '410';

export const REDIRECT_SERVERS = ['nginx', 'Apache', 'Caddy'] as const;
export type RedirectServer = (typeof REDIRECT_SERVERS)[number];

/** Only these stand in a rule. */
const PLAIN = /^\/[\p{L}\p{N}/._~@,:+=& -]*$/u;
/** A target may have more that is encoded. */
const TARGET = /^(?:https?:\/\/[a-z0-9.-]+(?::\d+)?)?\/[A-Za-z0-9/._~@,:+=&?%-]*$/;

const escaped = (path: string): string => path.replace(/[.+]/g, '\\$&');
const RULES: Record<RedirectServer, (from: string, to: string) => string> = {
  // locations are compared with the decoded path (nginx, ngx_http_core_module)
  nginx: (from, to) => `location = "${from}" { return 301 ${to}; }`,
  Apache: (from, to) => `RedirectMatch 301 "^${escaped(from)}$" "${to}"`,
  // without a star a path is the whole path (Caddy, request matchers)
  Caddy: (from, to) => `redir "${from}" ${to} permanent`,
};
const GONE_RULES: Record<RedirectServer, (from: string) => string> = {
  nginx: (from) => `location = "${from}" { return 410; }`,
  Apache: (from) => `RedirectMatch 410 "^${escaped(from)}$"`,
  Caddy: (from) => `respond "${from}" 410`,
};
/**
 * The same for a file that leads to its own folder, or to its name without the ending: it may be the one that the
 * server shows there, and would come by the rule again without end. So what was asked for is compared, not what is
 * served.
 */
const ASKED_RULES: typeof RULES = {
  nginx: (from, to) => `if ($request_uri ~ "^${escaped(encodeURI(from))}(\\?|$)") { return 301 ${to}; }`,
  // a per cent sign begins a back reference (Apache, mod_rewrite)
  Apache: (from, to) =>
    [
      'RewriteEngine On',
      `RewriteCond %{THE_REQUEST} "^[A-Z]+ ${escaped(encodeURI(from))}[? ]"`,
      `RewriteRule "^" "${to.replaceAll('%', '\\%')}" [R=301,NE,L]`,
    ].join('\n'),
  Caddy: RULES.Caddy,
};
/** Whether a server may show this file at the address that it is to lead to. */
function mayBeShownAt(from: string, to: string): boolean {
  const target = decodeSafely(to.replace(/^https?:\/\/[^/]+/, ''));
  return target === from.replace(/[^/]+$/, '') || target === from.replace(/\.[^./]+$/, '');
}

/** Path and query of an address, whatever it was written as. */
export function pathOf(address: string): string {
  try {
    const url = new URL(address, 'https://former.invalid/');
    return url.pathname + url.search;
  } catch {
    return address;
  }
}

const targetOf = (to: string): string => (/^https?:/.test(to) ? to : pathOf(to));

/** Where an address leads, as the site itself knows it. @param hosts the site's own */
function goalOf(to: string, hosts: readonly string[]): string {
  const target = targetOf(to);
  const host = parseUrl(target)?.hostname;
  return host !== undefined && hosts.includes(host) ? pathOf(target) : target;
}

/**
 * Whether an address leads to itself: nothing has to be redirected, and a rule would lead in a circle.
 * @param hosts the site's own: an address there is the same as its path
 */
export const isSameAddress = ({ from, to }: Redirected, hosts: readonly string[]): boolean =>
  to !== GONE && (from === to || pathOf(from) === goalOf(to, hosts));

/** Whether a list leads from here back to here. */
function isCircle(from: string, next: ReadonlyMap<string, string>): boolean {
  const seen = new Set<string>();
  for (let at = next.get(from); at !== undefined && !seen.has(at); at = next.get(at)) {
    if (at === from) return true;
    seen.add(at);
  }
  return false;
}

/**
 * One rule for each address that moves; what no simple rule can hold, such as a query, or what leads in a circle, is
 * named in a comment.
 * @param hosts the site's own
 */
export function redirectLines(
  list: readonly Redirected[],
  server: RedirectServer,
  hosts: readonly string[],
): string {
  const moved = list.filter((one) => !isSameAddress(one, hosts));
  const next = new Map(
    moved.filter(({ to }) => to !== GONE).map(({ from, to }) => [pathOf(from), goalOf(to, hosts)]),
  );
  return moved
    .map(({ from, to }) => {
      const path = decodeSafely(pathOf(from));
      if (to === GONE)
        return PLAIN.test(path) ? GONE_RULES[server](path) : `# gone, by hand: ${JSON.stringify(from)}`;
      const target = targetOf(to);
      if (isCircle(pathOf(from), next))
        return `# leads in a circle: ${JSON.stringify(from)} to ${JSON.stringify(to)}`;
      return PLAIN.test(path) && TARGET.test(target)
        ? (mayBeShownAt(path, target) ? ASKED_RULES : RULES)[server](path, target)
        : `# by hand: ${JSON.stringify(from)} to ${JSON.stringify(to)}`;
    })
    .join('\n');
}
