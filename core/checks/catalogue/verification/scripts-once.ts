import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages } from '#core/checks/kit/judgement';
import { webAddress } from '#core/checks/view/web-address';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('verification.scripts-once', {
  twice: '{src} twice',
});

export const scriptsOnce = defineCheck({
  id: 'verification.scripts-once',
  title: 'No external script is loaded twice',
  fault: 'An external script is loaded twice',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'The same script twice is slower and often does its work twice.',
  source: 'common practice',
  messages: { expected: 'each outside script once', none: 'no outside script is loaded' },
  judge(context) {
    return overPages(context, (page) => {
      const seen = new Set<string>();
      for (const s of page.facts.scripts) {
        if (!s.src || context.view.siteHosts.has(webAddress(s.src)?.host ?? '')) continue;
        if (seen.has(s.src)) return failed(page.url, { found: msg('twice', { src: s.src }), raw: s.raw });
        seen.add(s.src);
      }
      return seen.size ? page.passed : null;
    });
  },
  recipe: (_, finding) => ({
    steps: 'Take out one of the two.',
    paste: [{ label: 'Loaded twice', text: failedPlaces(finding)[0]?.raw ?? '' }],
  }),
});
