import { decodeSafely } from '#core/extract/address';
import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed } from '#core/checks/kit/judgement';
import { escapeText } from './title-names-site';

/** Titles that page makers leave behind. Common practice, from memory; the host profile adds its own. */
export const DEFAULT_TITLES = [
  'home',
  'homepage',
  'home page',
  'untitled',
  'untitled document',
  'untitled page',
  'new page',
  'my site',
  'my website',
  'website',
  'site title',
  'your site title',
  'page title',
  'document',
  'index',
  'welcome',
  'sample page',
  'test',
  'blank page',
];

export const FOLDED_DEFAULTS: readonly string[] = DEFAULT_TITLES.map(foldLoosely);

export const noDefaultTitle = defineCheck({
  id: 'identity.no-default-title',
  title: 'No page has a default title',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A default title tells a reader nothing and shows that nobody looked.',
  source: 'common practice',
  messages: { expected: 'a title of the page’s own', none: 'no page has a title' },
  judge(context) {
    const defaults = new Set([
      ...FOLDED_DEFAULTS,
      ...(context.profile.defaults?.titles ?? []).map(foldLoosely),
    ]);
    return overPages(context, (page) => {
      const title = page.facts.titles[0];
      if (!title?.text) return null;
      return (defaults.has(foldLoosely(title.text)) ? failed : passed)(page.url, {
        found: title.text,
        raw: title.raw + title.text,
      });
    });
  },
  recipe({ brief }, finding) {
    return {
      steps: 'Give each of these pages a title that says what it is about.',
      paste: failedPlaces(finding)
        .slice(0, 10)
        .map((p) => ({
          label: p.place,
          text: `<title>${escapeText(pageWord(p.place))}${brief.name ? ` – ${escapeText(brief.name)}` : ''}</title>`,
        })),
    };
  },
});

/** A word for a page from its address, to start a title with. */
export function pageWord(url: string): string {
  const last = new URL(url).pathname.split('/').filter(Boolean).pop() ?? 'Home';
  const word = decodeSafely(last)
    .replace(/\.\w{2,5}$/, '')
    .replace(/[-_+]+/g, ' ')
    .trim();
  return word ? word[0]!.toUpperCase() + word.slice(1) : 'Home';
}
