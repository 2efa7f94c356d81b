import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { madeTitle } from '#core/checks/kit/page-titles';

export const titlePresent = defineCheck({
  id: 'metadata.title-present',
  title: 'Every page has one title',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'The title heads the listing, the tab and the bookmark.',
  source: 'HTML; WCAG 2.4.2',
  messages: { expected: 'exactly one title in the head' },
  judge(context) {
    return overPages(context, (page) => {
      const titles = page.facts.titles;
      if (!titles.length) return failed(page.url, { found: 'none' });
      const raw = titles.map((t) => `${t.raw}${t.text}</title>`).join('\n');
      if (titles.length > 1) return failed(page.url, { found: `${titles.length} titles`, raw });
      if (!titles[0]!.text) return failed(page.url, { found: 'an empty title', raw });
      if (titles[0]!.where === 'body') return failed(page.url, { found: 'a title in the body', raw });
      return passed(page.url, { found: titles[0]!.text, raw });
    });
  },
  recipe: (context, finding) => ({
    steps: 'Give each of these pages one title in its head.',
    paste: intendedPaste(context, finding, ['title'], (url) => madeTitle(url, context.brief)),
  }),
});
