import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';

export const analyticsOnce = defineCheck({
  id: 'verification.analytics-once',
  title: 'No page is counted twice',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { brief: ['analyticsIds'], pages: true },
  why: 'Loaded by the host’s setting and by the template too, every visit counts double.',
  source: 'common practice',
  messages: { expected: 'each ID loaded once', none: 'no page loads an analytics ID of the brief' },
  judge(context) {
    return overPages(context, (page) => {
      for (const id of context.brief.analyticsIds) {
        const loads = page.scriptsWith(id).filter((s) => s.src);
        if (loads.length > 1)
          return failed(page.url, {
            found: `${id} is loaded ${loads.length} times`,
            raw: loads.map((s) => s.raw).join('\n'),
          });
      }
      return context.brief.analyticsIds.some((id) => page.scriptsWith(id).length) ? page.passed : null;
    });
  },
  recipe: (_, finding) => ({
    steps: 'Keep one of the two: mostly the host’s own setting, and take the script out of the template.',
    paste: [{ label: 'Take out one of', text: failedPlaces(finding)[0]?.raw ?? '' }],
  }),
});
