import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';

export const imageText: Check = {
  id: 'metadata.image-text',
  section: 'metadata',
  title: 'Pictures have a text',
  severity: 'minor',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'Who cannot see the picture hears its text; an empty one says that it is only decoration.',
  source: 'HTML; WCAG 1.1.1',
  judge(context) {
    return overPages(
      context,
      'alt on every img',
      (page) => {
        if (!page.facts.images.length) return null;
        const bare = page.facts.images.filter((i) => i.alt === null);
        return bare.length
          ? failed(page.url, {
              found: `${bare.length} of ${page.facts.images.length} without alt`,
              raw: bare
                .slice(0, 5)
                .map((i) => i.raw)
                .join('\n'),
            })
          : page.passed;
      },
      { none: 'no page has a picture' },
    );
  },
  recipe: () => ({
    steps: 'Say in the picture’s alt what it shows, or leave alt="" where it is decoration.',
    paste: [{ label: 'Decoration', text: 'alt=""' }],
  }),
};
