import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { verbatim } from '#core/facts/message';

export const secureForms = defineCheck({
  id: 'https.secure-forms',
  title: 'Forms post to https',
  fault: 'A form posts to http',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Browsers warn before they send, and what is sent can be read on the way.',
  source: 'common practice',
  messages: { expected: 'https for every form', none: 'no page has a form' },
  judge: (context) =>
    overPages(context, (page) => {
      if (!page.facts.forms.length) return null;
      // a button may send its form elsewhere (HTML, formaction)
      const targets = page.facts.forms.flatMap((f) => [f, ...(f.formActions ?? [])]);
      const bad = targets.find((f) => f.action.startsWith('http:'));
      return bad
        ? failed(page.url, { found: verbatim(bad.action), raw: bad.raw })
        : passed(page.url, { found: verbatim(page.facts.forms[0]!.action) });
    }),
  recipe: (_, finding) => ({
    steps: 'Change the form’s address to https, or to a path without scheme and host.',
    paste: finding.places
      .filter((p) => p.outcome === 'failed' && p.raw)
      .slice(0, 5)
      .map((p) => ({ label: p.place, text: p.raw!.replace('http:', 'https:') })),
  }),
});
