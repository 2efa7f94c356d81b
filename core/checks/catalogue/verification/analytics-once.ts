import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages, wanted } from '#core/checks/kit/judgement';

export const analyticsOnce: Check = {
  id: 'verification.analytics-once',
  section: 'verification',
  title: 'No page is counted twice',
  severity: 'major',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'Loaded by the host’s setting and by the template too, every visit counts double.',
  source: 'common practice',
  judge(context) {
    const ids = wanted(context.brief, 'analyticsIds');
    if ('judgement' in ids) return ids.judgement;
    return overPages(
      context,
      'each ID loaded once',
      (page) => {
        for (const id of ids.value) {
          const loads = page.scriptsWith(id).filter((s) => s.src);
          if (loads.length > 1)
            return failed(page.url, {
              found: `${id} is loaded ${loads.length} times`,
              raw: loads.map((s) => s.raw).join('\n'),
            });
        }
        return ids.value.some((id) => page.scriptsWith(id).length) ? page.passed : null;
      },
      { none: 'no page loads an analytics ID of the brief' },
    );
  },
  recipe: (_, finding) => ({
    steps: 'Keep one of the two: mostly the host’s own setting, and take the script out of the template.',
    paste: [
      { label: 'Take out one of', text: finding.places.find((p) => p.outcome === 'failed')?.raw ?? '' },
    ],
  }),
};
