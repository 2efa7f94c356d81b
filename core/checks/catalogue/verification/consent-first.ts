import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { isBefore, scriptsMatching } from './positions';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('verification.consent-first', {
  'no-consent-script': 'no consent script',
  'comes-after-measuring-script': 'it comes after a measuring script',
});

export const consentFirst = defineCheck({
  id: 'verification.consent-first',
  title: 'Consent script comes before analytics',
  fault: 'Consent script is missing or comes after analytics',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { brief: ['consentScript'], pages: true },
  why: 'A counter that runs before the question makes the question worthless.',
  source: 'common practice',
  messages: {
    expected: ({ brief }) => `${brief.consentScript} before any measuring script`,
    none: 'no page measures anything',
  },
  judge(context) {
    const ids = context.brief.analyticsIds ?? [];
    return overPages(context, (page) => {
      const measuring = page.facts.scripts.filter(
        (s) =>
          // what browsers do not run waits for the answer
          s.inert === undefined &&
          (page.measuring.some((m) => m.script === s) || ids.some((id) => page.scriptsWith(id).includes(s))),
      );
      if (!measuring.length) return null;
      const own = scriptsMatching(page.facts, context.brief.consentScript)[0];
      if (!own) return failed(page.url, { found: msg('no-consent-script'), raw: measuring[0]!.raw });
      const early = measuring.find((s) => isBefore(s, own));
      return early
        ? failed(page.url, { found: msg('comes-after-measuring-script'), raw: `${early.raw}\n${own.raw}` })
        : passed(page.url, { raw: own.raw });
    });
  },
  recipe: ({ brief }) => ({
    steps: 'Put the consent script into the head, above everything that measures.',
    paste: [{ label: 'First in the head', text: `<script src="${brief.consentScript ?? ''}"></script>` }],
  }),
});
