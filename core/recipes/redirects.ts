/** Permanent redirects of single addresses as lines of a web server: nothing that is typed or harvested becomes a directive. */
import { decodeSafely } from '#core/extract/address';

export interface Redirected {
  from: string;
  to: string;
}

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

/** Path and query of an address, whatever it was written as. */
export function pathOf(address: string): string {
  try {
    const url = new URL(address, 'https://former.invalid/');
    return url.pathname + url.search;
  } catch {
    return address;
  }
}

/** One rule for each; what no simple rule can hold, such as a query, is named in a comment. */
export function redirectLines(list: readonly Redirected[], server: RedirectServer): string {
  return list
    .map(({ from, to }) => {
      const path = decodeSafely(pathOf(from));
      const target = /^https?:/.test(to) ? to : pathOf(to);
      return PLAIN.test(path) && TARGET.test(target)
        ? RULES[server](path, target)
        : `# by hand: ${JSON.stringify(from)} to ${JSON.stringify(to)}`;
    })
    .join('\n');
}
