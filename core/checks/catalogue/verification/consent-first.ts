import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages, passed, wanted } from '#core/checks/kit/judgement';
import { isBefore, scriptsMatching } from './positions';

export const consentFirst: Check = {
  id: 'verification.consent-first',
  section: 'verification',
  title: 'Consent is asked before anything measures',
  severity: 'minor',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'A counter that runs before the question makes the question worthless.',
  source: 'common practice',
  judge(context) {
    const consent = wanted(context.brief, 'consentScript');
    if ('judgement' in consent) return consent.judgement;
    const ids = context.brief.analyticsIds ?? [];
    return overPages(
      context,
      `${consent.value} before any measuring script`,
      (page) => {
        const measuring = page.facts.scripts.filter(
          (s) =>
            page.measuring.some((m) => m.script === s) || ids.some((id) => page.scriptsWith(id).includes(s)),
        );
        if (!measuring.length) return null;
        const own = scriptsMatching(page.facts, consent.value)[0];
        if (!own) return failed(page.url, { found: 'no consent script', raw: measuring[0]!.raw });
        const early = measuring.find((s) => isBefore(s, own));
        return early
          ? failed(page.url, { found: 'it comes after a measuring script', raw: `${early.raw}\n${own.raw}` })
          : passed(page.url, { raw: own.raw });
      },
      { none: 'no page measures anything' },
    );
  },
  recipe: ({ brief }) => ({
    steps: 'Put the consent script into the head, above everything that measures.',
    paste: [{ label: 'First in the head', text: `<script src="${brief.consentScript ?? ''}"></script>` }],
  }),
};
