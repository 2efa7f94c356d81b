import { headerValues } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overHosts, passed, unsure } from '#core/checks/kit/judgement';
import { httpsRedirect } from '#core/recipes/web-server';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('https.http-redirects', {
  'port-closed': 'nothing answers on port 80',
  'stays-on-http': '{url} answers {status} without TLS',
});

export const httpRedirects = defineCheck({
  id: 'https.http-redirects',
  title: 'http redirects to https on every host',
  fault: 'http does not redirect to https on a host',
  severity: 'blocker',
  situations: ['live'],
  scope: 'host',
  needs: { hosts: true },
  why: 'Old links and typed addresses start on http; whoever stays there is unprotected and sees “not secure”.',
  source: 'RFC 6797 7.2',
  messages: { expected: 'a redirect to https' },
  judge(context) {
    return overHosts(context, (h) => {
      const first = h.http.hops[0];
      const raw = first?.status
        ? [`HTTP ${first.status}`, ...headerValues(first, 'location').map((v) => `Location: ${v}`)].join('\n')
        : undefined;
      if (first?.status === undefined) {
        const error = first?.error ?? h.http.error;
        if (error?.code === 'refused') return failed(h.host, { found: msg('port-closed') });
        return unsure(h.host, verbatim(error?.message) ?? commonMessage('no-answer'));
      }
      const secure = h.http.hops.find((x) => x.url.startsWith('https:'));
      if (secure) return passed(h.host, { found: verbatim(secure.url), raw });
      if ([401, 403, 429, 503].includes(first.status))
        return unsure(h.host, commonMessage('refused', { status: first.status }), { raw });
      return failed(h.host, {
        found: msg('stays-on-http', {
          url: h.http.hops.at(-1)!.url,
          status: h.http.hops.at(-1)!.status ?? commonMessage('nothing'),
        }),
        raw,
      });
    });
  },
  recipe: (_, finding) => ({
    steps: 'Switch on “always https” at the host, or set the redirect in the server’s configuration.',
    paste: httpsRedirect(failedPlaces(finding, 10).map((p) => p.place)),
  }),
});
