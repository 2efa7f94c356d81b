import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { verbatim } from '#core/facts/message';

export const analyticsOffStaging = defineCheck({
  id: 'verification.analytics-off-staging',
  title: 'Analytics does not count staging',
  fault: 'Analytics counts staging',
  severity: 'minor',
  situations: ['staging'],
  scope: 'page',
  needs: { brief: ['analyticsIds'], pages: true },
  why: 'Visits of the agency to the draft spoil the client’s figures from the first day.',
  source: 'common practice',
  messages: { expected: 'no live analytics ID' },
  judge(context) {
    return overPages(context, (page) => {
      const hit = context.brief.analyticsIds
        .map((id) => ({ id, script: page.scriptsWith(id)[0] }))
        .find((x) => x.script);
      return hit ? failed(page.url, { found: verbatim(hit.id), raw: hit.script!.raw }) : page.passed;
    });
  },
  recipe: () => ({
    steps:
      'Load the script only where the host name is the live one, or leave the ID out of staging’s settings.',
  }),
});
