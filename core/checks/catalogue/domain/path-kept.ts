import { lastAnswer } from '#core/facts/evidence';
import { chainText, temporaryRedirect } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overHosts, passed } from '#core/checks/kit/judgement';
import { hostRedirect } from '#core/recipes/web-server';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const LANGUAGE_PREFIX = /^\/[a-z]{2,3}(-[a-z0-9]{2,8})?(?=\/)/i;

export const pathKept = defineCheck({
  id: 'domain.path-kept',
  title: 'Redirects between hosts keep path and query',
  fault: 'Redirect between hosts drops path or query',
  severity: 'minor',
  situations: ['live'],
  scope: 'host',
  needs: { hosts: true },
  why: 'A link to a page that ends on the home page is a broken link.',
  source: 'RFC 9110 15.4',
  messages: {
    expected: 'a permanent redirect to the same path and query',
    none: 'no host redirects to another',
  },
  judge(context) {
    return overHosts(context, (h) => {
      const chain = h.httpsPath.end === 'answer' ? h.httpsPath : h.httpPath;
      const last = lastAnswer(chain);
      if (!last || new URL(last.url).hostname === h.host) return null;
      const start = new URL(chain.start),
        end = new URL(last.url);
      const raw = chainText(chain);
      const path =
        end.pathname.replace(LANGUAGE_PREFIX, '') === start.pathname || end.pathname === start.pathname;
      const kept = path && end.search === start.search;
      if (!kept)
        return failed(h.host, {
          found: verbatim(end.href),
          expected: `…${start.pathname}${start.search}`,
          raw,
        });
      const temporary = temporaryRedirect(chain);
      return temporary
        ? failed(h.host, {
            found: commonMessage('status', { status: temporary.status }),
            expected: '301 or 308',
            raw,
          })
        : passed(h.host, { found: verbatim(end.href), raw });
    });
  },
  recipe: ({ brief }, finding) => ({
    steps: 'Let the redirect carry path and query along, with status 301.',
    paste: hostRedirect(
      failedPlaces(finding, 10).map((p) => p.place),
      brief.preferredHost ?? '',
    ),
  }),
});
