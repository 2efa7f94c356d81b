/**
 * Whether an address is kept out of listings: by a noindex that crawlers may see. A Disallow keeps it out of
 * none, and hides a noindex (RFC 9309 3).
 */
import { mayFetch, type RobotsFile } from '#core/extract/robots';
import type { Directive } from '#core/checks/view/index-directives';
import { sentences } from '#core/text/sentences';
import type { Said } from '#core/facts/said';

const says = sentences('indexing.out-of-listings', {
  'noindex-in': 'noindex in the {inPage, select, yes {page} other {header}}',
  'noindex-behind-disallow': 'noindex behind a Disallow, so it is never seen',
  'only-disallow': 'only a Disallow, which does not keep an address out of listings',
  'open-all-but': 'open to all but {agent}',
  'open-search-engines': 'open to search engines',
});

/** @param noIndex what the page says against being listed */
export function outOfListings(
  url: string,
  noIndex: readonly Directive[],
  robots: RobotsFile | undefined,
): { isOut: boolean; found: Said; raw?: string } {
  const everyone = noIndex.find((n) => n.agent === '*'),
    one = noIndex[0];
  const rule = robots ? mayFetch(robots, '*', url) : { allowed: true };
  if (everyone && rule.allowed)
    return {
      isOut: true,
      found: says('noindex-in', { inPage: everyone.from === 'meta' ? 'yes' : 'no' }),
      raw: everyone.raw,
    };
  if (everyone)
    return {
      isOut: false,
      found: says('noindex-behind-disallow'),
      raw: `${everyone.raw}\n${rule.rule?.raw ?? ''}`,
    };
  if (!rule.allowed)
    return {
      isOut: false,
      found: says('only-disallow'),
      raw: rule.rule?.raw,
    };
  return {
    isOut: false,
    found: one ? says('open-all-but', { agent: one.agent }) : says('open-search-engines'),
    raw: one?.raw,
  };
}
