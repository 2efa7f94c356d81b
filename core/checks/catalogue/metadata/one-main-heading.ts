import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';

export const oneMainHeading = defineCheck({
  id: 'metadata.one-main-heading',
  title: 'Every page has one h1',
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
            ? `${all.length} h1: ${all
                .map((h) => `“${h.text}”`)
                .slice(0, 3)
                .join(', ')}`
            : 'no h1',
        });
      return (all[0]!.text ? passed : failed)(page.url, { found: all[0]!.text || 'an empty h1' });
    });
  },
  recipe: () => ({ steps: 'Make the heading that names the page the only h1; set others to h2.' }),
});
