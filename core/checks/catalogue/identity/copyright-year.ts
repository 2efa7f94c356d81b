import type { ReadPage } from '#core/checks/view/read-page';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('identity.copyright-year', {
  'no-year': 'no year stands beside a copyright mark',
});

const MARK =
  /(?:©|\(c\)|copyright)\s{0,3}(?:©\s{0,3})?(?:\p{L}[\p{L}\s.,&'-]{0,60})?((?:19|20)\d\d)(?:\s*[-–—/]\s*((?:19|20)?\d\d))?/giu;

/** The year that a mark ends in: of "2019-26" it is 2026. */
function lastYear([, first = '', second]: RegExpMatchArray): number {
  if (!second) return Number(first);
  return Number(second.length === 2 ? first.slice(0, 2) + second : second);
}

/** The newest year beside a copyright mark on any page. */
function newestMark(pages: readonly ReadPage[]) {
  let newest: { year: number; place: string; raw: string } | undefined;
  for (const page of pages) {
    const plain = page.words.lowered;
    if (!plain.includes('©') && !plain.includes('copyright') && !plain.includes('(c)')) continue;
    for (const match of page.facts.text.matchAll(MARK)) {
      const year = lastYear(match);
      if (year > (newest?.year ?? 0)) newest = { year, place: page.url, raw: match[0] };
    }
  }
  return newest;
}

/** The year may have turned already, or not yet, where the client is. */
function isPresentYear(year: number, at: Date): boolean {
  return [-DAY, 0, DAY].some((shift) => new Date(at.getTime() + shift).getUTCFullYear() === year);
}
const DAY = 86_400_000;

export const copyrightYear = defineCheck({
  id: 'identity.copyright-year',
  title: 'Copyright year is the current one',
  fault: 'Copyright year is out of date',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { pages: true },
  why: 'An old year in the footer makes a new site look abandoned.',
  source: 'common practice',
  messages: { expected: ({ at }) => String(at.getUTCFullYear()) },
  judge(context) {
    const { view, at } = context;
    const newest = newestMark(view.pages);
    if (!newest) return inapplicable(msg('no-year'));
    const { year, place, raw } = newest;
    return overSite(
      context,
      (isPresentYear(year, at) ? passed : failed)(place, { found: verbatim(String(year)), raw }),
    );
  },
  recipe({ at, brief }) {
    return {
      steps: 'Set the year in the footer, best by a script or template variable that keeps it current.',
      paste: [{ label: 'Footer', text: `© ${at.getUTCFullYear()} ${brief.name ?? ''}`.trim() }],
    };
  },
});
