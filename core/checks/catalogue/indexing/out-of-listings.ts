/**
 * Whether an address is kept out of listings: by a noindex that crawlers may see. A Disallow keeps it out of
 * none, and hides a noindex (RFC 9309 3).
 */
import { mayFetch, type RobotsFile } from '#core/extract/robots';
import type { Directive } from '#core/checks/view/index-directives';

/** @param noIndex what the page says against being listed */
export function outOfListings(
  url: string,
  noIndex: readonly Directive[],
  robots: RobotsFile | undefined,
): { isOut: boolean; found: string; raw?: string } {
  const everyone = noIndex.find((n) => n.agent === '*'),
    one = noIndex[0];
  const rule = robots ? mayFetch(robots, '*', url) : { allowed: true };
  if (everyone && rule.allowed)
    return {
      isOut: true,
      found: `noindex in the ${everyone.from === 'meta' ? 'page' : 'header'}`,
      raw: everyone.raw,
    };
  if (everyone)
    return {
      isOut: false,
      found: 'noindex behind a Disallow, so it is never seen',
      raw: `${everyone.raw}\n${rule.rule?.raw ?? ''}`,
    };
  if (!rule.allowed)
    return {
      isOut: false,
      found: 'only a Disallow, which does not keep an address out of listings',
      raw: rule.rule?.raw,
    };
  return {
    isOut: false,
    found: one ? `open to all but ${one.agent}` : 'open to search engines',
    raw: one?.raw,
  };
}
