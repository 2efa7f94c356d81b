import { LISTING_SIZE, lineFit } from '#core/text/width';
import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { TITLE_LIMITS, titleMaker } from '#core/checks/kit/made-texts';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('metadata.title-length', {
  length: '{count} characters, {px} px: {text}',
});

export const titleLength = defineCheck({
  id: 'metadata.title-length',
  title: 'Titles fit a search listing',
  fault: 'A title does not fit a search listing',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'What does not fit is cut off, mostly before the name.',
  source: 'common practice',
  parameters: {
    least: { default: TITLE_LIMITS.least, min: 1, max: 60, unit: 'characters', meaning: 'fewest' },
    most: { default: TITLE_LIMITS.most, min: 20, max: 200, unit: 'characters', meaning: 'most' },
    width: {
      default: TITLE_LIMITS.width,
      min: 200,
      max: 2000,
      unit: 'px',
      meaning: `widest at ${LISTING_SIZE.title} px of a face with Arial’s metrics`,
    },
  },
  messages: {
    expected: ({ parameters: { least, most, width } }) =>
      `${least} to ${most} characters, at most ${width} px`,
    none: 'no page has a title',
  },
  judge: (context) =>
    overPages(context, (page) => {
      const title = page.facts.titles[0];
      if (!title?.text) return null;
      const { count, px, fits } = lineFit(title.text, LISTING_SIZE.title, context.parameters);
      return (fits ? passed : failed)(page.url, {
        found: msg('length', { count, px, text: title.text }),
        raw: title.raw + title.text,
      });
    }),
  recipe: (context, finding) => ({
    steps: 'Say first what this page is about, then the name; leave out words that every title has.',
    paste: intendedPaste(context, finding, ['title'], titleMaker(context, context.parameters)),
  }),
});
