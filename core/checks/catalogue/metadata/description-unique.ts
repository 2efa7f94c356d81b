import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { overUnique } from '#core/checks/kit/uniqueness';

export const descriptionUnique = defineCheck({
  id: 'metadata.description-unique',
  title: 'Meta descriptions are unique',
  fault: 'A meta description is on several pages',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A description on many pages is mostly the site’s default showing through.',
  source: 'common practice',
  messages: { expected: 'a description that no other page has', none: 'no page has a description' },
  judge: (context) => overUnique(context, (p) => p.description?.content || undefined),
  recipe: (context, finding) => ({
    steps:
      'Write a description of its own for each of these pages; where one is blank the host fills in the site’s.',
    paste: intendedPaste(context, finding, ['description']),
  }),
});
