import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';

const WORDS = { link: ['link', 'links'], button: ['button', 'buttons'], field: ['field', 'fields'] } as const;

export const controlNames: Check = {
  id: 'metadata.control-names',
  section: 'metadata',
  title: 'Links, buttons and fields have names',
  severity: 'minor',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'To a screen reader a button with a picture alone is “button”.',
  source: 'WCAG 2.4.4, 3.3.2, 4.1.2',
  judge: (context) =>
    overPages(
      context,
      'a name for every control',
      (page) => {
        const { unnamed } = page.facts;
        if (!unnamed.length) return page.facts.anchors.length || page.facts.forms.length ? page.passed : null;
        const counts = (['link', 'button', 'field'] as const)
          .map((k) => [k, unnamed.filter((u) => u.kind === k).length] as const)
          .filter(([, n]) => n);
        return failed(page.url, {
          found: counts.map(([k, n]) => `${n} ${WORDS[k][n === 1 ? 0 : 1]} without a name`).join(', '),
          raw: unnamed
            .slice(0, 5)
            .map((u) => u.raw)
            .join('\n'),
        });
      },
      { none: 'no page has links or forms' },
    ),
  recipe: (_, finding) => ({
    steps:
      'Write a text into the link or button, a label beside the field, or an aria-label where there is no room; a placeholder is no label.',
    paste: finding.places
      .filter((p) => p.outcome === 'failed' && p.raw)
      .slice(0, 3)
      .map((p) => ({ label: p.place, text: p.raw! })),
  }),
};
