import { finalStatus } from '#core/facts/evidence';
import { where, type Check } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';

export const notFoundStatus: Check = {
  id: 'indexing.not-found-status',
  section: 'indexing',
  title: 'A made-up address answers “not found”',
  severity: 'major',
  situations: where('L'),
  scope: 'site',
  needs: 'pages',
  why: 'When everything answers 200, broken links stay unnoticed and nonsense is listed.',
  source: 'RFC 9110 15.5.5',
  judge({ evidence }) {
    const expected = '404 or 410';
    const chain = evidence.notFound;
    const status = chain ? finalStatus(chain) : undefined;
    if (!chain || status === undefined) return cantTell(chain?.error?.message ?? 'not tried', { expected });
    if ([401, 403, 429, 503].includes(status))
      return cantTell(`the server refused the visitor (${status})`, { expected });
    const last = chain.hops.at(-1)!;
    return overSite(
      (status === 404 || status === 410 ? passed : failed)(chain.start, {
        found: chain.hops.length > 1 ? `redirected to ${last.url}, ${status}` : `status ${status}`,
      }),
      { expected },
    );
  },
  recipe: () => ({
    steps:
      'Let the server answer unknown addresses with status 404 and a page that helps on; take out a rule that sends all of them to the home page.',
    paste: [
      { label: 'nginx', text: 'error_page 404 /404.html;\nlocation / { try_files $uri $uri/ =404; }' },
      { label: 'Apache', text: 'ErrorDocument 404 /404.html' },
    ],
  }),
};
