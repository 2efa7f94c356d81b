import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages, wanted } from '#core/checks/kit/judgement';

export const analyticsOffStaging: Check = {
  id: 'verification.analytics-off-staging',
  section: 'verification',
  title: 'Staging is not counted',
  severity: 'minor',
  situations: where('S'),
  scope: 'page',
  needs: 'pages',
  why: 'Visits of the agency to the draft spoil the client’s figures from the first day.',
  source: 'common practice',
  judge(context) {
    const ids = wanted(context.brief, 'analyticsIds');
    if ('judgement' in ids) return ids.judgement;
    return overPages(context, 'no live analytics ID', (page) => {
      const hit = ids.value.map((id) => ({ id, script: page.scriptsWith(id)[0] })).find((x) => x.script);
      return hit ? failed(page.url, { found: hit.id, raw: hit.script!.raw }) : page.passed;
    });
  },
  recipe: () => ({
    steps:
      'Load the script only where the host name is the live one, or leave the ID out of staging’s settings.',
  }),
};
