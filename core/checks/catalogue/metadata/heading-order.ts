import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('metadata.heading-order', {
  skipped: 'h{level}, then h{level2} “{text}”',
});

export const headingOrder = defineCheck({
  id: 'metadata.heading-order',
  title: 'Heading levels are not skipped',
  fault: 'A heading level is skipped',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Whoever moves through the page by its headings looks for the level that is missing.',
  source: 'WCAG technique G141',
  messages: { expected: 'no level skipped downwards', none: 'no page has a heading' },
  judge: (context) =>
    overPages(context, (page) => {
      const { headings } = page.facts;
      if (!headings.length) return null;
      const at = headings.findIndex((h, i) => i > 0 && h.level > headings[i - 1]!.level + 1);
      const skip = headings[at];
      return skip
        ? failed(page.url, {
            found: msg('skipped', { level: headings[at - 1]!.level, level2: skip.level, text: skip.text }),
            raw: skip.raw,
          })
        : page.passed;
    }),
  recipe: (_, finding) => ({
    steps: 'Choose levels by their place in the outline and sizes in the style sheet.',
    paste: failedPlaces(finding, 5).map((p) => ({ label: p.place, text: p.found ?? '' })),
  }),
});
