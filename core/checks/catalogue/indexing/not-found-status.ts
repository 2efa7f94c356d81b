import { finalStatus } from '#core/facts/evidence';
import { decodeSafely } from '#core/extract/address';
import { isQuotable, literally } from '#core/recipes/conditional-header';
import type { SiteView } from '#core/checks/view/site-view';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.not-found-status', {
  'not-tried': 'not tried',
  redirected: 'redirected to {url}, {status}',
});

const MOST_ROUTES = 200;

/** Lines for an application that scripts build: its shell for the addresses that were read, 404 for all others. */
function shellRoutes(view: SiteView): { label: string; text: string }[] {
  // servers compare the decoded path
  const built = view.pages
    .filter((p) => (p.shell || p.isRendered) && p.path !== '/')
    .map((p) => decodeSafely(p.path.replace(/\/$/, '')))
    .filter(isQuotable)
    .slice(0, MOST_ROUTES);
  if (!built.length) return [];
  const routes = built.map(literally).join('|');
  return [
    {
      label: 'nginx, an application built by scripts',
      text: `error_page 404 /404.html;\nlocation / { try_files $uri $uri/ =404; }\nlocation ~ "^(?:${routes})/?$" { try_files $uri /index.html =404; }`,
    },
    {
      label: 'Apache, an application built by scripts',
      text: `FallbackResource disabled\nErrorDocument 404 /404.html\nRewriteEngine On\nRewriteRule "^(?:${routes})/?$" "/index.html" [PT,L]`,
    },
  ];
}

export const notFoundStatus = defineCheck({
  id: 'indexing.not-found-status',
  title: 'Missing pages answer 404 or 410',
  fault: 'Missing pages do not answer 404 or 410',
  severity: 'major',
  situations: ['live'],
  scope: 'site',
  facts: ['notFound'],
  reads: ['http'],
  needs: { pages: true },
  why: 'When everything answers 200, broken links stay unnoticed and nonsense is listed.',
  source: 'RFC 9110 15.5.5',
  messages: { expected: '404 or 410' },
  judge(context) {
    const { evidence } = context;
    const { expected } = context.words;
    const chain = evidence.notFound;
    const status = chain ? finalStatus(chain) : undefined;
    if (!chain || status === undefined)
      return cantTell(verbatim(chain?.error?.message) ?? msg('not-tried'), { expected });
    if ([401, 403, 429, 503].includes(status))
      return cantTell(commonMessage('refused', { status }), { expected });
    const last = chain.hops.at(-1)!;
    return overSite(
      context,
      (status === 404 || status === 410 ? passed : failed)(chain.start, {
        found:
          chain.hops.length > 1
            ? msg('redirected', { url: last.url, status })
            : commonMessage('status', { status }),
      }),
    );
  },
  recipe: ({ view }) => ({
    steps:
      'The lines stand in the place of those that answer “/” now. Let unknown addresses answer with status 404 and a page that helps on; take out a rule that sends all of them to the home page. Where an application answers addresses that are no files, it has to send the 404 itself: the lines with try_files are for a site of files alone, and would take the application’s pages down.',
    paste: [
      ...shellRoutes(view),
      {
        label: 'nginx, a site of files',
        text: 'error_page 404 /404.html;\nlocation / { try_files $uri $uri/ =404; }',
      },
      {
        label: 'nginx, an application in PHP',
        text: 'error_page 404 /404.html;\nfastcgi_intercept_errors on;',
      },
      {
        label: 'nginx, an application behind it',
        text: 'error_page 404 /404.html;\nproxy_intercept_errors on;',
      },
      {
        label: 'Apache, a site of files',
        text: 'FallbackResource disabled\nOptions -Indexes\nErrorDocument 404 /404.html',
      },
      {
        label: 'Apache, an application in PHP',
        text: 'ErrorDocument 404 /404.html\nProxyErrorOverride On 404',
      },
    ],
  }),
});
