import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { escapeText } from '#core/checks/catalogue/identity/title-names-site';

export const imageDescription: Check = {
  id: 'sharing.image-description',
  section: 'sharing',
  title: 'The share picture has a text',
  severity: 'minor',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'Who reads a shared link with a screen reader hears what the picture shows only if the page says it.',
  source: 'Open Graph protocol (og:image:alt)',
  judge(context) {
    return overPages(
      context,
      'og:image:alt where there is og:image',
      (page) => {
        if (!page.openGraph('og:image')?.content.trim()) return null;
        const alt = page.openGraph('og:image:alt');
        return alt?.content.trim()
          ? passed(page.url, { found: alt.content, raw: alt.raw })
          : failed(page.url, { found: alt ? 'an empty og:image:alt' : 'no og:image:alt', raw: alt?.raw });
      },
      { none: 'no page names a share picture' },
    );
  },
  recipe: ({ brief }) => ({
    steps:
      'Say in a sentence what the picture shows, beside the picture in the page’s share settings or in the head of the template.',
    paste: [
      {
        label: 'Tag',
        text: `<meta property="og:image:alt" content="${escapeText(brief.name ?? 'What the picture shows')}">`,
      },
    ],
  }),
};
