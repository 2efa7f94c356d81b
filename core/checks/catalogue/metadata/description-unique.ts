import { where, type Check } from '#core/checks/kit/check';
import { overUnique } from '#core/checks/kit/uniqueness';

export const descriptionUnique: Check = {
  id: 'metadata.description-unique',
  section: 'metadata',
  title: 'No two pages share a description',
  severity: 'minor',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'A description on many pages is mostly the site’s default showing through.',
  source: 'common practice',
  judge: (context) =>
    overUnique(
      context,
      'a description that no other page has',
      (p) => p.description?.content || undefined,
      'no page has a description',
    ),
  recipe: () => ({
    steps:
      'Write a description of its own for each of these pages; where one is blank the host fills in the site’s.',
  }),
};
