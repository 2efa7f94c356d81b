import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages, passed, wanted } from '#core/checks/kit/judgement';

export const analyticsPresent: Check = {
  id: 'verification.analytics-present',
  section: 'verification',
  title: 'Every page is counted',
  severity: 'major',
  situations: where('L'),
  scope: 'page',
  needs: 'pages',
  why: 'A template without the script leaves a hole in the figures that nobody notices.',
  source: 'common practice',
  judge(context) {
    const ids = wanted(context.brief, 'analyticsIds');
    if ('judgement' in ids) return ids.judgement;
    return overPages(context, `${ids.value.join(' and ')} on every page`, (page) => {
      const gone = ids.value.filter((id) => !page.scriptsWith(id).length);
      return gone.length
        ? failed(page.url, { found: `no ${gone.join(', ')}` })
        : passed(page.url, { raw: page.scriptsWith(ids.value[0]!)[0]!.raw });
    });
  },
  recipe: ({ brief }, finding) => ({
    steps: 'Put the script into the template that these pages use, not into single pages.',
    paste: [
      { label: 'ID', text: (brief.analyticsIds ?? []).join('\n') },
      ...(finding.places.find((p) => p.outcome === 'passed' && p.raw)
        ? [
            {
              label: 'As it stands on another page',
              text: finding.places.find((p) => p.outcome === 'passed' && p.raw)!.raw!,
            },
          ]
        : []),
    ],
  }),
};
