import { normaliseUrl } from '#core/extract/address';
import { ownerOf } from '#core/facts/agency-book';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { memoize } from '#core/remembering';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('identity.profile-links', {
  'strange-profile':
    '{href}{hasOwner, select, yes {, the profile of {owner}} other {{isFrontPage, select, yes {, the network’s own front page} other {}}}}',
});

/**
 * One spelling for a profile's address: host without www., path without a final slash, no query. Common
 * practice: networks take all of these for the same.
 */
export function profileKey(address: string): string | undefined {
  const url = normaliseUrl(address);
  if (!url) return undefined;
  const u = new URL(url);
  return `${u.hostname.replace(/^(?:www|m|mobile)\./, '')}${u.pathname.replace(/\/$/, '').toLowerCase()}`;
}
/** Links that share this page, or lead to the network itself, are no profiles. */
const NO_PROFILE = /\/(?:share|sharer|sharer\.php|intent|submit|dialog|pin\/create|shareArticle)\b/i;

export const profileLinks = defineCheck({
  id: 'identity.profile-links',
  title: 'Profile links lead to the client’s own profiles',
  fault: 'A profile link leads to a profile not in the brief',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { brief: ['profileLinks'], pages: true },
  why: 'A template’s profile link sends every visitor who wants more to a stranger.',
  source: 'common practice',
  messages: {
    expected: ({ brief }) => `only ${brief.profileLinks.join(', ')}`,
    none: 'no page links to one of these networks',
  },
  judge(context) {
    const good = new Set(
      context.brief.profileLinks.map(profileKey).filter((k): k is string => k !== undefined),
    );
    const networks = new Set([...good].map((k) => k.split('/')[0]!));
    // pages link to the same few hosts and profiles
    const keyOf = memoize(profileKey);
    const onNetwork = memoize((host: string) => networks.has(host.replace(/^(?:www|m|mobile)\./, '')));
    return overPages(context, (page) => {
      const found = page.linksAway
        .filter((l) => onNetwork(l.host) && !NO_PROFILE.test(l.url))
        .map((l) => l.anchor);
      if (!found.length) return null;
      const strange = found.find(
        (a) =>
          ![...good].some((g) => {
            const k = keyOf(a.href)!;
            return k === g || k.startsWith(`${g}/`);
          }),
      );
      if (!strange) return passed(page.url, { found: verbatim(found[0]!.href), raw: found[0]!.raw });
      const owner =
        ownerOf(context.book, 'profileLinks', strange.href.replace(/\/$/, '')) ??
        ownerOf(context.book, 'profileLinks', strange.href);
      return failed(page.url, {
        found: msg('strange-profile', {
          href: strange.href,
          hasOwner: owner ? 'yes' : 'no',
          owner: owner ? owner : undefined,
          isFrontPage: new URL(strange.href).pathname === '/' ? 'yes' : 'no',
        }),
        raw: strange.raw,
        ...(owner ? {} : { adopt: { field: 'profileLinks', how: 'add', value: strange.href } as const }),
      });
    });
  },
  recipe: ({ brief }) => ({
    steps: 'Set the profile links in the site’s settings or template; take out the ones that lead elsewhere.',
    paste: [{ label: 'Profiles', text: (brief.profileLinks ?? []).join('\n') }],
  }),
});
