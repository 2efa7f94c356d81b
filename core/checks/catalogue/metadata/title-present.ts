import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { titleMaker } from '#core/checks/kit/made-texts';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('metadata.title-present', {
  several: '{titlesCount} titles',
  'empty-title': 'an empty title',
  'title-in-body': 'a title in the body',
});

export const titlePresent = defineCheck({
  id: 'metadata.title-present',
  title: 'Every page has one title',
  fault: 'A page has no title or several',
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
      if (!titles.length) return failed(page.url, { found: commonMessage('none') });
      const raw = titles.map((t) => `${t.raw}${t.text}</title>`).join('\n');
      if (titles.length > 1)
        return failed(page.url, { found: msg('several', { titlesCount: titles.length }), raw });
      if (!titles[0]!.text) return failed(page.url, { found: msg('empty-title'), raw });
      if (titles[0]!.where === 'body') return failed(page.url, { found: msg('title-in-body'), raw });
      return passed(page.url, { found: verbatim(titles[0]!.text), raw });
    });
  },
  recipe: (context, finding) => ({
    steps: 'Give each of these pages one title in its head.',
    paste: intendedPaste(context, finding, ['title'], titleMaker(context)),
  }),
});
