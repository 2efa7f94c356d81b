import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { overUnique } from '#core/checks/kit/uniqueness';

export const titleUnique = defineCheck({
  id: 'metadata.title-unique',
  title: 'Titles are unique',
  fault: 'A title is on several pages',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Two listings with the same title compete, and a reader cannot tell them apart.',
  source: 'common practice',
  messages: { expected: 'a title that no other page has', none: 'no page has a title' },
  judge: (context) => overUnique(context, (p) => p.facts.titles[0]?.text),
  recipe: (context, finding) => ({
    steps:
      'Say in each title what only this page is about; a title that all pages inherit comes from the site’s settings.',
    paste: intendedPaste(context, finding, ['title']),
  }),
});
