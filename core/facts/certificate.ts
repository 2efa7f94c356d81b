/** What a certificate covers. */

/**
 * Whether a host name is covered by a presented DNS name (RFC 9525 6.3): labels compared without case,
 * a wildcard only as the whole left-most label, standing for exactly one label.
 */
export function nameMatches(presented: string, host: string): boolean {
  const p = presented.toLowerCase().replace(/\.$/, '').split('.');
  const h = host.toLowerCase().replace(/\.$/, '').split('.');
  if (p.length !== h.length || p.length < 2) return p.length === 1 && h.length === 1 && p[0] === h[0];
  return p.every((label, i) => label === h[i] || (i === 0 && label === '*' && p.length > 2 && h[0] !== ''));
}

/** Whether one of a certificate's names covers a host. @param names of its SAN, DNS names and IP addresses */
export const coversHost = (names: readonly string[], host: string): boolean =>
  names.some((name) => nameMatches(name, host));
