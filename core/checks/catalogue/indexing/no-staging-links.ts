import type { ReadPage } from '#core/checks/view/read-page';
import type { Evidence } from '#core/facts/evidence';
import { fitsHostPattern } from '#core/facts/host-records';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { memoize } from '#core/remembering';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('indexing.no-staging-links', {
  links: '{url}{several, select, yes { and {hitsCount} more} other {}}',
});

/** A web address that a meta's content is or ends with (`0; url=https://…`). */
const addressIn = (content: string): string | undefined =>
  content.includes('://') ? /https?:\/\/[^\s"'<>]+/i.exec(content)?.[0] : undefined;

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

/** Links and loaded things that lie on staging; their hosts are known already. */
function linkedOrLoaded(page: ReadPage, isStaging: (host: string) => boolean): Hit[] {
  const hits: Hit[] = [];
  for (const { host, anchor } of page.linksAway)
    if (isStaging(host)) hits.push({ url: anchor.href, raw: `<a href="${anchor.href}">${anchor.text}</a>` });
  for (const { host, resource } of page.loads)
    if (isStaging(host)) hits.push({ url: resource.url, raw: resource.raw });
  return hits;
}

/** Everything on a page that names an address on staging. */
function hitsOn(page: ReadPage, isStaging: (host: string) => boolean): Hit[] {
  const { facts } = page;
  const hits = linkedOrLoaded(page, isStaging);
  const look = (url: string, raw: string): void => {
    if (!page.isOwn(url) && isStaging(page.hostIn(url))) hits.push({ url, raw });
  };
  for (const form of facts.forms) {
    look(form.action, form.raw);
    for (const { action, raw } of form.formActions ?? []) look(action, raw);
  }
  for (const { rel, href, raw } of facts.links) if (!rel.includes('canonical')) look(href, raw);
  for (const { property, content, raw } of facts.metas) {
    // the address that a page is shared by is judged with its canonical
    if (property === 'og:url' || page.isOwn(content)) continue;
    const url = addressIn(content);
    if (url) look(url, raw);
  }
  for (const { addresses } of facts.jsonLd) if (addresses) for (const url of addresses) look(url, url);
  return hits;
}

export const noStagingLinks = defineCheck({
  id: 'indexing.no-staging-links',
  title: 'No link or file points to staging',
  fault: 'A link or file points to staging',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  facts: ['jsonLd', 'manifest', 'resources'],
  needs: { brief: ['stagingHosts'], pages: true },
  why: 'Links to staging show visitors the draft and break when staging lapses.',
  source: 'common practice',
  judge(context) {
    const { evidence } = context;
    const { home } = context.view;
    const hosts = new Set(context.brief.stagingHosts);
    // the host's other staging places count too: links to a copy made earlier are as wrong
    const pattern = context.profile.stagingHostPattern;
    const isStaging = memoize(
      (host: string) => hosts.has(host) || (pattern !== undefined && fitsHostPattern(pattern, host)),
    );
    return overPages(
      context,
      (page) => {
        const hits = hitsOn(page, isStaging);
        if (page === home) hits.push(...manifestHits(evidence, (url) => isStaging(page.hostIn(url))));
        return hits.length
          ? failed(page.url, {
              found: msg('links', {
                url: hits[0]!.url,
                several: hits.length > 1 ? 'yes' : 'no',
                hitsCount: hits.length > 1 ? hits.length - 1 : undefined,
              }),
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
