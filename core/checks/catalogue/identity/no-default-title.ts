import type { HostProfile } from '#core/facts/host-profile';
import { foldLoosely } from '#core/text/fold';
import { titleMaker } from '#core/checks/kit/made-texts';
import { FOLDED_DEFAULTS } from '#core/checks/kit/page-titles';
import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { verbatim } from '#core/facts/message';

/** Titles that are nobody’s own, folded. */
export const defaultTitles = (profile: HostProfile | undefined): ReadonlySet<string> =>
  new Set([...FOLDED_DEFAULTS, ...(profile?.defaults?.titles ?? []).map(foldLoosely)]);

export const noDefaultTitle = defineCheck({
  id: 'identity.no-default-title',
  title: 'Titles are not the host’s or theme’s default',
  fault: 'A title is the host’s or theme’s default',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A default title tells a reader nothing and shows that nobody looked.',
  source: 'common practice',
  messages: { expected: 'a title of the page’s own', none: 'no page has a title' },
  judge(context) {
    const defaults = defaultTitles(context.profile);
    return overPages(context, (page) => {
      const title = page.facts.titles[0];
      if (!title?.text) return null;
      return (defaults.has(foldLoosely(title.text)) ? failed : passed)(page.url, {
        found: verbatim(title.text),
        raw: title.raw + title.text,
      });
    });
  },
  recipe: (context, finding) => ({
    steps: 'Give each of these pages a title that says what it is about.',
    paste: intendedPaste(context, finding, ['title'], titleMaker(context)),
  }),
});
