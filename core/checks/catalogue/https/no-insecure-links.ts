import { hostOf } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('https.no-insecure-links', {
  canonical: 'canonical {href}',
  'og-url': 'og:url {content}',
  'form-to': 'form to {action}',
  links: '{href}{several, select, yes { and {linksCount} more} other {}}',
  picture: 'picture {url}',
  'in-sitemap': '{loc} in {map}',
});

export const noInsecureLinks = defineCheck({
  id: 'https.no-insecure-links',
  title: 'Links, pictures, canonicals and sitemap use https',
  fault: 'A link, picture, canonical or sitemap uses http',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  facts: ['sitemaps', 'resources'],
  reads: ['files'],
  needs: { pages: true },
  why: 'Each http address inside the site costs a redirect and shows search engines two versions.',
  source: 'common practice',
  messages: { expected: 'https in links, own pictures, canonical, og:url, forms and sitemap' },
  judge(context) {
    const { view, evidence } = context;
    const own = (url: string | undefined): url is string =>
      url !== undefined && url.startsWith('http:') && view.siteHosts.has(hostOf(url) ?? '');
    const listed = evidence.sitemaps.flatMap((m) =>
      m.facts && m.facts.kind !== 'index'
        ? m.facts.urls.filter((u) => own(u.loc)).map((u) => ({ map: m.url, loc: u.loc }))
        : [],
    );
    return overPages(context, (page) => {
      const f = page.facts;
      const canonical = page.canonicals.find((l) => own(l.href));
      if (canonical)
        return failed(page.url, { found: msg('canonical', { href: canonical.href }), raw: canonical.raw });
      const meta = page.openGraph('og:url');
      if (own(meta?.content))
        return failed(page.url, { found: msg('og-url', { content: meta!.content }), raw: meta!.raw });
      const form = f.forms.flatMap((x) => [x, ...(x.formActions ?? [])]).find((x) => own(x.action));
      if (form) return failed(page.url, { found: msg('form-to', { action: form.action }), raw: form.raw });
      // a page that came over https names itself by http only where it leads away
      const links = page.url.startsWith('http:')
        ? f.anchors.filter((a) => own(page.target(a.href)))
        : page.linksAway.filter((l) => own(l.url)).map((l) => l.anchor);
      if (links.length)
        return failed(page.url, {
          found: msg('links', {
            href: links[0]!.href,
            several: links.length > 1 ? 'yes' : 'no',
            linksCount: links.length > 1 ? links.length - 1 : undefined,
          }),
          raw: links[0]!.raw,
        });
      // browsers upgrade them, and say so to nobody (https.no-mixed-content only notes it)
      const picture = f.resources.find((r) => (r.kind === 'img' || r.kind === 'srcset') && own(r.url));
      if (picture) return failed(page.url, { found: msg('picture', { url: picture.url }), raw: picture.raw });
      const inMap = listed.find((l) => l.loc.replace('http:', 'https:') === page.url);
      return inMap
        ? failed(page.url, {
            found: msg('in-sitemap', { loc: inMap.loc, map: inMap.map }),
            raw: `<loc>${inMap.loc}</loc>`,
          })
        : page.passed;
    });
  },
  recipe: (_, finding) => ({
    steps: 'Set the site’s address to https in its settings, and replace the old form in texts and menus.',
    paste: finding.places
      .filter((p) => p.outcome === 'failed' && p.raw)
      .slice(0, 5)
      .map((p) => ({ label: p.place, text: p.raw!.replace('http:', 'https:') })),
  }),
});
