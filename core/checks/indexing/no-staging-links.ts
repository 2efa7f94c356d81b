import { asciiHost, hostOf } from '#core/extract/address';
import { fitsHostPattern } from '#core/facts/host-records';
import { where, type Check } from '../check';
import { failed, overPages, passed, wanted } from '../judgement';

export const noStagingLinks: Check = {
  id: 'indexing.no-staging-links', section: 'indexing', title: 'Nothing points back at staging', severity: 'major', situations: where('L'), scope: 'page', needs: 'pages',
  why: 'Links to staging show visitors the draft and break when the place lapses.',
  source: 'common practice',
  judge(context) {
    const staging = wanted(context.brief, 'stagingHosts');
    if ('judgement' in staging) return staging.judgement;
    const hosts = new Set(staging.value.map(h => asciiHost(h) ?? h));
    const names = [...hosts];
    // the host's other staging places count too: links to a copy made earlier are as wrong
    const pattern = context.profile.stagingHostPattern;
    if (pattern) names.push(pattern.slice(pattern.lastIndexOf('*') + 1));
    return overPages(context, `nothing on ${[...hosts].join(', ')}${pattern ? ` or ${pattern}` : ''}`, (page) => {
      const f = page.facts;
      // looked for as text first: most addresses need no parser to be passed over
      const own = page.url.slice(0, page.url.indexOf('/', 8) + 1);
      const leads = (url: string) => !url.startsWith(own) && names.some(h => url.includes(h)) && (hosts.has(hostOf(url) ?? '') || (pattern !== undefined && fitsHostPattern(pattern, hostOf(url) ?? '')));
      const hits = [
        ...f.anchors.filter(a => leads(a.href)).map(a => ({ url: a.href, raw: `<a href="${a.href}">${a.text}</a>` })), ...f.resources.filter(r => leads(r.url)),
        ...f.forms.filter(x => leads(x.action)).map(x => ({ url: x.action, raw: x.raw })), ...f.links.filter(l => !l.rel.includes('canonical') && leads(l.href)).map(l => ({ url: l.href, raw: l.raw })),
      ];
      return hits.length ? failed(page.url, { found: `${hits[0]!.url}${hits.length > 1 ? ` and ${hits.length - 1} more` : ''}`, raw: hits[0]!.raw }) : passed(page.url);
    });
  },
  recipe: ({ brief, view }) => ({ steps: 'Search the site’s contents for the staging host and replace it, then publish.', paste: [{ label: 'Search for', text: (brief.stagingHosts ?? []).join('\n') }, { label: 'Replace by', text: brief.preferredHost ?? view.preferredHost }] }),
};
