import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';

export const headingOrder: Check = {
  id: 'metadata.heading-order',
  section: 'metadata',
  title: 'Headings step down one level at a time',
  severity: 'minor',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'Whoever moves through the page by its headings looks for the level that is missing.',
  source: 'WCAG technique G141',
  judge: (context) =>
    overPages(
      context,
      'no level skipped downwards',
      (page) => {
        const { headings } = page.facts;
        if (!headings.length) return null;
        const at = headings.findIndex((h, i) => i > 0 && h.level > headings[i - 1]!.level + 1);
        const skip = headings[at];
        return skip
          ? failed(page.url, {
              found: `h${headings[at - 1]!.level}, then h${skip.level} “${skip.text}”`,
              raw: skip.raw,
            })
          : page.passed;
      },
      { none: 'no page has a heading' },
    ),
  recipe: (_, finding) => ({
    steps: 'Choose levels by their place in the outline and sizes in the style sheet.',
    paste: finding.places
      .filter((p) => p.outcome === 'failed')
      .slice(0, 5)
      .map((p) => ({ label: p.place, text: p.found ?? '' })),
  }),
};
