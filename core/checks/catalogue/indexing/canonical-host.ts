import { hostOf } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('indexing.canonical-host', {
  'no-address': 'no address: {href}',
  staging: 'staging: {url}',
});

export const canonicalHost = defineCheck({
  id: 'indexing.canonical-host',
  title: 'Canonicals name the live host',
  fault: 'Canonical names another host',
  severity: 'blocker',
  situations: ['live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A canonical that still names staging tells search engines to list staging instead.',
  source: 'common practice',
  messages: { none: 'no page has a canonical' },
  judge(context) {
    const { brief, view } = context;
    const hosts = [
      brief.preferredHost ?? view.preferredHost,
      ...(brief.otherHosts ?? []),
      ...(brief.knownSubdomains ?? []),
    ];
    const staging = new Set(brief.stagingHosts);
    const good = new Set(hosts.filter((h) => !staging.has(h)));
    return overPages(
      context,
      (page) => {
        const links = page.canonicals;
        if (!links.length) return null;
        for (const link of links) {
          const url = page.target(link.href);
          if (!url) return failed(page.url, { found: msg('no-address', { href: link.href }), raw: link.raw });
          const host = hostOf(url)!;
          if (staging.has(host)) return failed(page.url, { found: msg('staging', { url }), raw: link.raw });
          if (!url.startsWith('https:') || !good.has(host))
            return failed(page.url, { found: verbatim(url), raw: link.raw });
        }
        return passed(page.url, { found: verbatim(links[0]!.href), raw: links[0]!.raw });
      },
      { expected: `https://${hosts[0]}/…` },
    );
  },
  recipe: ({ view, brief }, finding) => ({
    steps:
      'Set the site’s address to the live host in its settings and publish again; the canonicals follow it.',
    paste: failedPlaces(finding, 10).map((p) => {
      const u = new URL(p.place);
      return {
        label: p.place,
        text: `<link rel="canonical" href="https://${brief.preferredHost ?? view.preferredHost}${u.pathname}">`,
      };
    }),
  }),
});
