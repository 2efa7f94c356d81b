import { parse } from 'tldts';
import { asciiHost } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.own', {
  'under-hosts-suffix': '{host}, under {name}’s {shared}',
  'bare-address': 'the bare address {host}',
  'under-shared-suffix': '{host}, under the shared suffix {publicSuffix}',
});

export const own = defineCheck({
  id: 'domain.own',
  title: 'Live address is on the client’s own domain',
  fault: 'Live address is not on the client’s own domain',
  severity: 'blocker',
  situations: ['live'],
  scope: 'site',
  why: 'An address under a host’s name is lost with the host, and everything that links to it.',
  source: 'common practice; Public Suffix List',
  messages: { expected: 'a domain that is registered for the client' },
  judge(context) {
    const { profile, view, evidence } = context;
    // where the home address leads to, also where that is no host of the site
    const host = view.homeEvidence ? new URL(view.homeEvidence.url).hostname : evidence.target.hosts[0]!;
    const shared = (profile.sharedSuffixes ?? [])
      .map((s) => asciiHost(s.replace(/^[*.]+/, '')) ?? s)
      .find((s) => host === s || host.endsWith(`.${s}`));
    if (shared)
      return overSite(
        context,
        failed(host, {
          found: msg('under-hosts-suffix', { host, name: profile.name || commonMessage('the-host'), shared }),
        }),
      );
    const known = parse(host, { allowPrivateDomains: true });
    if (known.isIp) return overSite(context, failed(host, { found: msg('bare-address', { host }) }));
    if (known.isPrivate)
      return overSite(
        context,
        failed(host, {
          found: msg('under-shared-suffix', { host, publicSuffix: known.publicSuffix ?? undefined }),
        }),
      );
    return overSite(context, passed(host, { found: verbatim(known.domain ?? host) }));
  },
  recipe: ({ brief, profile }) => ({
    steps: `Connect ${brief.preferredHost ?? 'the client’s domain'} at ${profile.name || 'the host'}, make it the main address, and let the old one redirect to it.`,
  }),
});
