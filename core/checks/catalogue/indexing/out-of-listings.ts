/**
 * Whether an address is kept out of listings: by a noindex that crawlers may see. A Disallow keeps it out of
 * none, and hides a noindex (RFC 9309 3).
 */
import { mayFetch, type RobotsFile } from '#core/extract/robots';
import type { Directive } from '#core/checks/view/index-directives';
import { defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.out-of-listings', {
  'noindex-behind-disallow': 'noindex behind a Disallow, so it is never seen',
  'only-disallow': 'only a Disallow, which does not keep an address out of listings',
  'open-all-but': 'open to all but {agent}',
  'open-search-engines': 'open to search engines',
});

/** Codes of what a Disallow was meant to keep out of listings. */
export const BY_DISALLOW = [msg('noindex-behind-disallow').code, msg('only-disallow').code];

/** @param noIndex what the page says against being listed */
export function outOfListings(
  url: string,
  noIndex: readonly Directive[],
  robots: RobotsFile | undefined,
): { isOut: boolean; found: Message; raw?: string } {
  const everyone = noIndex.find((n) => n.agent === '*'),
    one = noIndex[0];
  const rule = robots ? mayFetch(robots, '*', url) : { allowed: true };
  if (everyone && rule.allowed)
    return {
      isOut: true,
      found: commonMessage('noindex-in', {
        inPage: everyone.from === 'meta' ? 'yes' : 'no',
        everyone: 'yes',
        agent: everyone.agent,
      }),
      raw: everyone.raw,
    };
  if (everyone)
    return {
      isOut: false,
      found: msg('noindex-behind-disallow'),
      raw: `${everyone.raw}\n${rule.rule?.raw ?? ''}`,
    };
  if (!rule.allowed)
    return {
      isOut: false,
      found: msg('only-disallow'),
      raw: rule.rule?.raw,
    };
  return {
    isOut: false,
    found: one ? msg('open-all-but', { agent: one.agent }) : msg('open-search-engines'),
    raw: one?.raw,
  };
}
