import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('metadata.one-main-heading', {
  several: '{allCount} h1: {all}',
  'no-h1': 'no h1',
  'empty-h1': 'an empty h1',
});

export const oneMainHeading = defineCheck({
  id: 'metadata.one-main-heading',
  title: 'Every page has one h1',
  fault: 'A page has no h1 or several',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'It tells screen readers and search engines what the page is about.',
  source: 'common practice',
  messages: { expected: 'exactly one non-empty h1' },
  judge(context) {
    return overPages(context, (page) => {
      const all = page.facts.headings.filter((h) => h.level === 1);
      if (all.length !== 1)
        return failed(page.url, {
          found: all.length
            ? msg('several', {
                allCount: all.length,
                all: all
                  .map((h) => `“${h.text}”`)
                  .slice(0, 3)
                  .join(', '),
              })
            : msg('no-h1'),
        });
      return (all[0]!.text ? passed : failed)(page.url, {
        found: verbatim(all[0]!.text || undefined) ?? msg('empty-h1'),
      });
    });
  },
  recipe: () => ({ steps: 'Make the heading that names the page the only h1; set others to h2.' }),
});
