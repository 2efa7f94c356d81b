import type { ReadPage } from '#core/checks/view/read-page';
import type { SiteView } from '#core/checks/view/site-view';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed } from '#core/checks/kit/judgement';
import { escapeText } from '#core/recipes/markup';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('sharing.preview-complete', {
  missing: 'no {gone}',
});

const REQUIRED = ['og:title', 'og:type', 'og:image', 'og:url'];

/** A share picture that another page of the site names and that loads. */
const knownPicture = (view: SiteView): string | undefined =>
  view.evidence.assets.find((a) => a.roles.includes('share-picture') && a.image && a.url.startsWith('https:'))
    ?.url;

/** The tags that a page lacks, as far as what stands in them is known. */
function missingTags(page: ReadPage, view: SiteView): string {
  const contents: Record<string, string | undefined> = {
    'og:title': page.facts.titles[0]?.text,
    'og:type': 'website',
    'og:image': knownPicture(view),
    'og:url': page.canonical ?? page.url,
  };
  return REQUIRED.filter((name) => !page.openGraph(name)?.content.trim() && contents[name])
    .map((name) => `<meta property="${name}" content="${escapeText(contents[name]!)}">`)
    .join('\n');
}

export const previewComplete = defineCheck({
  id: 'sharing.preview-complete',
  title: 'Open Graph tags are complete',
  fault: 'Open Graph tags are incomplete',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['assets'],
  needs: { pages: true },
  why: 'A link without title and picture is passed over in a chat or a feed.',
  source: 'Open Graph protocol',
  messages: { expected: () => REQUIRED.join(', ') },
  judge(context) {
    return overPages(context, (page) => {
      const metas = REQUIRED.map((p) => page.openGraph(p));
      const gone = REQUIRED.filter((_, i) => !metas[i]?.content.trim());
      return gone.length
        ? failed(page.url, { found: msg('missing', { gone: gone.join(', ') }) })
        : passed(page.url, { raw: metas.map((m) => m!.raw).join('\n') });
    });
  },
  recipe: ({ view }, finding) => ({
    steps:
      'Add the missing tags to the head; most hosts fill them from the page’s share settings. A picture that the site does not have yet is uploaded first, at least 1200 by 630 pixels.',
    paste: failedPlaces(finding, 5).flatMap((p) => {
      const page = view.byUrl.get(p.place);
      const text = page ? missingTags(page, view) : '';
      return text ? [{ label: p.place, text }] : [];
    }),
  }),
});
