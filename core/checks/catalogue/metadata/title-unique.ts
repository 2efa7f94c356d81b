import { where, type Check } from '#core/checks/kit/check';
import { overUnique } from '#core/checks/kit/uniqueness';

export const titleUnique: Check = {
  id: 'metadata.title-unique',
  section: 'metadata',
  title: 'No two pages share a title',
  severity: 'major',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'Two listings with the same title compete, and a reader cannot tell them apart.',
  source: 'common practice',
  judge: (context) =>
    overUnique(
      context,
      'a title that no other page has',
      (p) => p.facts.titles[0]?.text,
      'no page has a title',
    ),
  recipe: () => ({
    steps:
      'Say in each title what only this page is about; a title that all pages inherit comes from the site’s settings.',
  }),
};
