import { headerValues } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overHosts, passed } from '#core/checks/kit/judgement';
import { httpsRedirect } from '#core/recipes/web-server';
import { verbatim } from '#core/facts/message';

export const permanentRedirects = defineCheck({
  id: 'https.permanent-redirects',
  title: 'Redirects to https are permanent (301 or 308)',
  fault: 'A redirect to https is not permanent (301 or 308)',
  severity: 'minor',
  situations: ['live'],
  scope: 'host',
  needs: { hosts: true },
  why: 'Browsers and search engines remember a permanent redirect, and go on asking the old address after a temporary one.',
  source: 'RFC 9110 15.4',
  messages: { expected: '301 or 308', none: 'no host redirects from http to https' },
  judge(context) {
    return overHosts(context, (h) => {
      const steps = h.http.hops.filter(
        (hop, i) =>
          hop.status &&
          hop.status >= 300 &&
          hop.status < 400 &&
          h.http.hops[i + 1] &&
          hop.url.startsWith('http:'),
      );
      if (!steps.length || !h.http.hops.some((x) => x.url.startsWith('https:'))) return null;
      const bad = steps.find((s) => s.status !== 301 && s.status !== 308);
      const shown = bad ?? steps[0]!;
      return (bad ? failed : passed)(h.host, {
        found: verbatim(String(shown.status)),
        raw: [`HTTP ${shown.status}`, ...headerValues(shown, 'location').map((v) => `Location: ${v}`)].join(
          '\n',
        ),
      });
    });
  },
  recipe: (_, finding) => ({
    steps: 'Change the status of the redirect from temporary to 301.',
    paste: httpsRedirect(failedPlaces(finding, 10).map((p) => p.place)),
  }),
});
