import { defineManualCheck } from '#core/checks/kit/check';

export const handedIn = defineManualCheck({
  id: 'indexing.handed-in',
  title: 'Sitemap is handed in to the search engines',
  fault: 'Sitemap is not handed in to the search engines',
  severity: 'minor',
  situations: ['live'],
  source: 'common practice',
  why: 'New sites are found weeks earlier, and faults are reported to somebody.',
  how: 'Add the site in the search engines’ consoles, confirm the ownership token, hand in the sitemap’s address, and attest.',
});
