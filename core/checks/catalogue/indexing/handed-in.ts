import { handCheck, where } from '#core/checks/kit/check';

export const handedIn = handCheck({
  id: 'indexing.handed-in',
  section: 'indexing',
  title: 'Site and sitemap are handed in at the search engines',
  severity: 'minor',
  situations: where('L'),
  source: 'common practice',
  why: 'New sites are found weeks earlier, and faults are reported to somebody.',
  how: 'Add the site in the search engines’ consoles, confirm the ownership token, hand in the sitemap’s address, and attest.',
});
