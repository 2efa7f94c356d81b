import { hostOf } from '#core/extract/address';
import { foldSpace } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import type { ReadPage } from '#core/checks/view/read-page';
import { SiteView } from '#core/checks/view/site-view';
import { cantTell, failed, inapplicable, overPlaces } from '#core/checks/kit/judgement';

/** What is compared of a page: hosts and indexing flags set aside. */
function faceOf(page: ReadPage, base: string, hosts: ReadonlySet<string>): Record<string, string> {
  const f = page.facts;
  const folder = new URL('.', base).pathname;
  const plain = (url: string) => {
    const host = hostOf(url);
    if (host === undefined || !hosts.has(host)) return url;
    const u = new URL(url);
    return `/${u.pathname.startsWith(folder) ? u.pathname.slice(folder.length) : u.pathname.slice(1)}${u.search}`;
  };
  return {
    title: foldSpace(f.titles[0]?.text ?? ''),
    description: foldSpace(f.metas.find((m) => m.name === 'description')?.content ?? ''),
    headings: f.headings.map((h) => `${h.level} ${h.text}`).join('\n'),
    text: foldSpace(f.text),
    links: [...new Set(f.anchors.map((a) => plain(a.href)))].sort().join('\n'),
  };
}

/** Why nothing could be compared yet. */
export const NOT_COMPARED = 'there is no audit of staging to compare with';

export const liveEqualsStaging = defineCheck({
  id: 'delivery.live-equals-staging',
  title: 'Live pages are those approved on staging',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  needs: { pages: true },
  why: 'What the client said yes to is what should be there.',
  source: 'common practice',
  messages: {
    expected: 'title, description, headings, text and links as on staging',
    none: 'no page stands in both environments',
  },
  judge(context) {
    const { view, brief, staging, profile, evidence } = context;
    if (brief.notWanted?.stagingHosts)
      return inapplicable(`left behind on purpose: ${brief.notWanted.stagingHosts}`);
    if (!staging) return cantTell(NOT_COMPARED);
    const other = new SiteView(staging, brief, profile, 'staging');
    if (!other.pages.length) return cantTell('staging could not be read when it was audited');
    const key = (url: string, base: string) => {
      const folder = new URL('.', base).pathname;
      const u = new URL(url);
      return (
        (u.pathname.startsWith(folder) ? u.pathname.slice(folder.length) : u.pathname.slice(1)) + u.search
      );
    };
    const before = new Map(other.pages.map((p) => [key(p.url, staging.target.url), p]));
    const hosts = new Set([...view.siteHosts, ...other.siteHosts]);
    const liveBase = view.home?.url ?? evidence.target.url;
    const places = view.pages.flatMap((page) => {
      const twin = before.get(key(page.url, liveBase));
      if (!twin) return [];
      const now = faceOf(page, liveBase, hosts),
        then = faceOf(twin, staging.target.url, hosts);
      const differing = Object.keys(now).filter((k) => now[k] !== then[k]);
      return [
        differing.length
          ? failed(page.url, {
              found: `other ${differing.join(', ')} than on staging`,
              expected: (then[differing[0]!] ?? '').slice(0, 300),
              raw: (now[differing[0]!] ?? '').slice(0, 300),
            })
          : page.passed,
      ];
    });
    return overPlaces(context, places);
  },
  recipe: () => ({
    steps:
      'Look which of the two is right: publish staging again, or note in the brief that staging was left behind on purpose.',
  }),
});
