import type { ReadPage } from '#core/checks/view/read-page';
import type { Evidence } from '#core/facts/evidence';
import { fitsHostPattern } from '#core/facts/host-records';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { remembering } from '#core/remembering';

/** A web address that a meta's content is or ends with (`0; url=https://…`). */
const addressIn = (content: string): string | undefined => /https?:\/\/[^\s"'<>]+/i.exec(content)?.[0];

/** Addresses of the manifest that lead to staging. */
function manifestHits({ manifest }: Evidence, isStaging: (url: string) => boolean): Hit[] {
  const { startUrl, scope, icons = [] } = manifest?.facts ?? {};
  return [startUrl, scope, ...icons.map((i) => i.src)].flatMap((url) =>
    url && isStaging(url) ? [{ url, raw: `${manifest!.url}: ${url}` }] : [],
  );
}

interface Hit {
  url: string;
  raw: string;
}

/** Everything on a page that names an address elsewhere. */
function* addressesAway(page: ReadPage): Generator<Hit> {
  const { facts } = page;
  for (const { anchor: a } of page.linksAway) yield { url: a.href, raw: `<a href="${a.href}">${a.text}</a>` };
  for (const { resource } of page.loads) yield resource;
  for (const form of facts.forms)
    for (const { action, raw } of [form, ...(form.formActions ?? [])]) yield { url: action, raw };
  for (const { rel, href, raw } of facts.links) if (!rel.includes('canonical')) yield { url: href, raw };
  for (const { property, content, raw } of facts.metas) {
    const url = addressIn(content);
    // the address that a page is shared by is judged with its canonical
    if (url && property !== 'og:url') yield { url, raw };
  }
  for (const { addresses = [] } of facts.jsonLd) for (const url of addresses) yield { url, raw: url };
}

/** Those that lead to staging. */
const hitsOn = (page: ReadPage, isStaging: (host: string) => boolean): Hit[] =>
  [...addressesAway(page)].filter(({ url }) => !page.isOwn(url) && isStaging(page.hostIn(url)));

export const noStagingLinks = defineCheck({
  id: 'indexing.no-staging-links',
  title: 'Nothing points back at staging',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  needs: { brief: ['stagingHosts'], pages: true },
  why: 'Links to staging show visitors the draft and break when the place lapses.',
  source: 'common practice',
  judge(context) {
    const { evidence } = context;
    const { home } = context.view;
    const hosts = new Set(context.brief.stagingHosts);
    // the host's other staging places count too: links to a copy made earlier are as wrong
    const pattern = context.profile.stagingHostPattern;
    const isStaging = remembering(
      (host: string) => hosts.has(host) || (pattern !== undefined && fitsHostPattern(pattern, host)),
    );
    return overPages(
      context,
      (page) => {
        const hits = hitsOn(page, isStaging);
        if (page === home) hits.push(...manifestHits(evidence, (url) => isStaging(page.hostIn(url))));
        return hits.length
          ? failed(page.url, {
              found: `${hits[0]!.url}${hits.length > 1 ? ` and ${hits.length - 1} more` : ''}`,
              raw: hits[0]!.raw,
            })
          : page.passed;
      },
      { expected: `nothing on ${[...hosts].join(', ')}${pattern ? ` or ${pattern}` : ''}` },
    );
  },
  recipe: ({ brief, view }) => ({
    steps: 'Search the site’s contents for the staging host and replace it, then publish.',
    paste: [
      { label: 'Search for', text: (brief.stagingHosts ?? []).join('\n') },
      { label: 'Replace by', text: brief.preferredHost ?? view.preferredHost },
    ],
  }),
});
