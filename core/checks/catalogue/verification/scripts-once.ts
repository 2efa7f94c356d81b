import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages } from '#core/checks/kit/judgement';
import { webAddress } from '#core/checks/view/web-address';

export const scriptsOnce: Check = {
  id: 'verification.scripts-once',
  section: 'verification',
  title: 'No outside script is loaded twice',
  severity: 'minor',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'The same script twice is slower and often does its work twice.',
  source: 'common practice',
  judge(context) {
    return overPages(
      context,
      'each outside script once',
      (page) => {
        const seen = new Set<string>();
        for (const s of page.facts.scripts) {
          if (!s.src || context.view.siteHosts.has(webAddress(s.src)?.host ?? '')) continue;
          if (seen.has(s.src)) return failed(page.url, { found: `${s.src} twice`, raw: s.raw });
          seen.add(s.src);
        }
        return seen.size ? page.passed : null;
      },
      { none: 'no outside script is loaded' },
    );
  },
  recipe: (_, finding) => ({
    steps: 'Take out one of the two.',
    paste: [{ label: 'Loaded twice', text: finding.places.find((p) => p.outcome === 'failed')?.raw ?? '' }],
  }),
};
