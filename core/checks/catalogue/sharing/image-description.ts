import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { escapeText } from '#core/recipes/markup';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('sharing.image-description', {
  'empty-og-image-alt': 'an empty og:image:alt',
  'no-og-image-alt': 'no og:image:alt',
});

export const imageDescription = defineCheck({
  id: 'sharing.image-description',
  title: 'og:image has a text (og:image:alt)',
  fault: 'og:image has no text (og:image:alt)',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Who reads a shared link with a screen reader hears what the picture shows only if the page says it.',
  source: 'Open Graph protocol (og:image:alt)',
  messages: { expected: 'og:image:alt where there is og:image', none: 'no page names a share picture' },
  judge(context) {
    return overPages(context, (page) => {
      if (!page.openGraph('og:image')?.content.trim()) return null;
      const alt = page.openGraph('og:image:alt');
      return alt?.content.trim()
        ? passed(page.url, { found: verbatim(alt.content), raw: alt.raw })
        : failed(page.url, {
            found: alt ? msg('empty-og-image-alt') : msg('no-og-image-alt'),
            raw: alt?.raw,
          });
    });
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
});
