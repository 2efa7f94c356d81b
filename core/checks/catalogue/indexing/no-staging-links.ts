import { fitsHostPattern } from '#core/facts/host-records';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { remembering } from '#core/remembering';

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
    const hosts = new Set(context.brief.stagingHosts);
    // the host's other staging places count too: links to a copy made earlier are as wrong
    const pattern = context.profile.stagingHostPattern;
    const isStaging = remembering(
      (host: string) => hosts.has(host) || (pattern !== undefined && fitsHostPattern(pattern, host)),
    );
    return overPages(
      context,
      (page) => {
        const f = page.facts;
        const hits: { url: string; raw: string }[] = [];
        for (const { host, anchor: a } of page.linksAway)
          if (isStaging(host)) hits.push({ url: a.href, raw: `<a href="${a.href}">${a.text}</a>` });
        for (const { host, resource } of page.loads)
          if (!page.isOwn(resource.url) && isStaging(host)) hits.push(resource);
        for (const x of f.forms)
          if (!page.isOwn(x.action) && isStaging(page.hostIn(x.action)))
            hits.push({ url: x.action, raw: x.raw });
        for (const l of f.links)
          if (!page.isOwn(l.href) && !l.rel.includes('canonical') && isStaging(page.hostIn(l.href)))
            hits.push({ url: l.href, raw: l.raw });
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
