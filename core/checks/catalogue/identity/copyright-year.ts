import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';

const MARK =
  /(?:©|\(c\)|copyright)\s{0,3}(?:©\s{0,3})?(?:\p{L}[\p{L}\s.,&'-]{0,60})?((?:19|20)\d\d)(?:\s*[-–—/]\s*((?:19|20)?\d\d))?/giu;

export const copyrightYear = defineCheck({
  id: 'identity.copyright-year',
  title: 'The copyright year is the current one',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { pages: true },
  why: 'An old year in the footer makes a new site look abandoned.',
  source: 'common practice',
  judge(context) {
    const { view, at } = context;
    const year = at.getUTCFullYear();
    let newest = 0,
      place = '',
      raw = '';
    for (const page of view.pages) {
      const plain = page.words.lowered;
      if (!plain.includes('©') && !plain.includes('copyright') && !plain.includes('(c)')) continue;
      for (const match of page.facts.text.matchAll(MARK)) {
        const last = match[2]
          ? match[2].length === 2
            ? Number(match[1]!.slice(0, 2) + match[2])
            : Number(match[2])
          : Number(match[1]);
        if (last > newest) {
          newest = last;
          place = page.url;
          raw = match[0];
        }
      }
    }
    if (!newest) return inapplicable('no year stands beside a copyright mark');
    // the year may have turned already or not yet where the client is
    const good =
      newest === year ||
      (newest === year - 1 && at.getUTCMonth() === 0 && at.getUTCDate() === 1) ||
      (newest === year + 1 && at.getUTCMonth() === 11 && at.getUTCDate() === 31);
    return overSite(context, (good ? passed : failed)(place, { found: String(newest), raw }), {
      expected: String(year),
    });
  },
  recipe({ at, brief }) {
    return {
      steps: 'Set the year in the footer, best by a script or template variable that keeps it current.',
      paste: [{ label: 'Footer', text: `© ${at.getUTCFullYear()} ${brief.name ?? ''}`.trim() }],
    };
  },
});
