import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed } from '#core/checks/kit/judgement';
import { escapeText } from '#core/recipes/markup';

const REQUIRED = ['og:title', 'og:type', 'og:image', 'og:url'];

export const previewComplete = defineCheck({
  id: 'sharing.preview-complete',
  title: 'Shared links have a full preview',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A link without title and picture is passed over in a chat or a feed.',
  source: 'Open Graph protocol',
  messages: { expected: () => REQUIRED.join(', ') },
  judge(context) {
    return overPages(context, (page) => {
      const metas = REQUIRED.map((p) => page.openGraph(p));
      const gone = REQUIRED.filter((_, i) => !metas[i]?.content.trim());
      return gone.length
        ? failed(page.url, { found: `no ${gone.join(', ')}` })
        : passed(page.url, { raw: metas.map((m) => m!.raw).join('\n') });
    });
  },
  recipe: ({ view }, finding) => ({
    steps: 'Add the missing tags to the head; most hosts fill them from the page’s share settings.',
    paste: failedPlaces(finding, 5).map((p) => {
      const title = view.pages.find((x) => x.url === p.place)?.facts.titles[0]?.text ?? '';
      return {
        label: p.place,
        text: `<meta property="og:title" content="${escapeText(title)}">\n<meta property="og:type" content="website">\n<meta property="og:url" content="${p.place}">\n<meta property="og:image" content="${new URL('/share.png', p.place).href}">`,
      };
    }),
  }),
});
