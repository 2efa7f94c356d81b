import { LISTING_SIZE, lineFit } from '#core/text/width';
import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { DESCRIPTION_LIMITS, madeDescription } from '#core/checks/kit/made-texts';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('metadata.description-length', {
  length: '{count} characters, {px} px',
});

export const descriptionLength = defineCheck({
  id: 'metadata.description-length',
  title: 'Meta descriptions fit a search listing',
  fault: 'A meta description does not fit a search listing',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A short one is passed over for a piece of the page, a long one is cut off.',
  source: 'common practice',
  parameters: {
    least: { default: DESCRIPTION_LIMITS.least, min: 1, max: 150, unit: 'characters', meaning: 'fewest' },
    most: { default: DESCRIPTION_LIMITS.most, min: 50, max: 500, unit: 'characters', meaning: 'most' },
    width: {
      default: DESCRIPTION_LIMITS.width,
      min: 300,
      max: 4000,
      unit: 'px',
      meaning: `widest at ${LISTING_SIZE.description} px of a face with Arial’s metrics`,
    },
  },
  messages: {
    expected: ({ parameters: { least, most, width }, profile: { descriptionLimit } }) =>
      `${least} to ${most} characters, at most ${width} px${descriptionLimit ? `, ${descriptionLimit} at the host` : ''}`,
    none: 'no page has a description',
  },
  judge(context) {
    const limit = context.profile.descriptionLimit;
    return overPages(context, (page) => {
      const meta = page.description;
      const text = meta?.content.trim();
      if (!text) return null;
      const { count, px, fits } = lineFit(text, LISTING_SIZE.description, context.parameters);
      const good = fits && (limit === undefined || count <= limit);
      return (good ? passed : failed)(page.url, { found: msg('length', { count, px }), raw: meta!.raw });
    });
  },
  recipe: (context, finding) => ({
    steps: 'Say in one or two sentences what a visitor finds here and why they should come.',
    paste: intendedPaste(context, finding, ['description'], (url) =>
      madeDescription(context.view.byUrl.get(url), context, context.parameters),
    ),
  }),
});
