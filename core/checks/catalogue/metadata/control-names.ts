import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('metadata.control-names', {
  link: '{n, plural, one {{n} link} other {{n} links}} without a name',
  button: '{n, plural, one {{n} button} other {{n} buttons}} without a name',
  field: '{n, plural, one {{n} field} other {{n} fields}} without a name',
  all: '{each}',
});

export const controlNames = defineCheck({
  id: 'metadata.control-names',
  title: 'Links, buttons and fields have a name',
  fault: 'A link, button or field has no name',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['unnamed'],
  needs: { pages: true },
  why: 'To a screen reader a button with a picture alone is “button”.',
  source: 'WCAG 2.4.4, 3.3.2, 4.1.2',
  messages: { expected: 'a name for every control', none: 'no page has links or forms' },
  judge: (context) =>
    overPages(context, (page) => {
      const { unnamed } = page.facts;
      if (!unnamed.length) return page.facts.anchors.length || page.facts.forms.length ? page.passed : null;
      const counts = (['link', 'button', 'field'] as const)
        .map((k) => [k, unnamed.filter((u) => u.kind === k).length] as const)
        .filter(([, n]) => n);
      return failed(page.url, {
        found: msg('all', { each: counts.map(([k, n]) => msg(k, { n })) }),
        raw: unnamed
          .slice(0, 5)
          .map((u) => u.raw)
          .join('\n'),
      });
    }),
  recipe: (_, finding) => ({
    steps:
      'Write a text into the link or button, a label beside the field, or an aria-label where there is no room; a placeholder is no label.',
    paste: finding.places
      .filter((p) => p.outcome === 'failed' && p.raw)
      .slice(0, 3)
      .map((p) => ({ label: p.place, text: p.raw! })),
  }),
});
