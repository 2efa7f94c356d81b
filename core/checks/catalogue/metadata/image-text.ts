import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('metadata.image-text', {
  'without-alt': '{bareCount} of {imagesCount} without alt',
});

export const imageText = defineCheck({
  id: 'metadata.image-text',
  title: 'Every img has an alt text',
  fault: 'An img has no alt text',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['images'],
  needs: { pages: true },
  why: 'Who cannot see the picture hears its text; an empty one says that it is only decoration.',
  source: 'HTML; WCAG 1.1.1',
  messages: { expected: 'alt on every img', none: 'no page has a picture' },
  judge(context) {
    return overPages(context, (page) => {
      if (!page.facts.images.length) return null;
      const bare = page.facts.images.filter((i) => i.alt === null);
      return bare.length
        ? failed(page.url, {
            found: msg('without-alt', { bareCount: bare.length, imagesCount: page.facts.images.length }),
            raw: bare
              .slice(0, 5)
              .map((i) => i.raw)
              .join('\n'),
          })
        : page.passed;
    });
  },
  recipe: () => ({
    steps: 'Say in the picture’s alt what it shows, or leave alt="" where it is decoration.',
    paste: [{ label: 'Decoration', text: 'alt=""' }],
  }),
});
