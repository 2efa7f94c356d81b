import { where, type Check } from '#core/checks/kit/check';
import { failed, overSite, passed, cantTell } from '#core/checks/kit/judgement';

export const stagingLocked: Check = {
  id: 'delivery.staging-locked',
  section: 'delivery',
  title: 'Staging asks who is there',
  severity: 'minor',
  situations: where('S'),
  scope: 'site',
  why: 'A password keeps out search engines, competitors and curious customers at once.',
  source: 'common practice',
  judge({ view, evidence }) {
    const expected = 'credentials, or only certain addresses let in';
    const place = evidence.target.url;
    if (evidence.target.wayIn === 'addresses')
      return overSite(passed(place, { found: 'certain addresses only' }), { expected });
    if (view.shutDoor) return overSite(passed(place, { found: view.shutDoor }), { expected });
    const refusal = view.refusals.find((r) => r.evidence.via === 'home');
    if (refusal?.status === 401 || refusal?.status === 403)
      return overSite(passed(place, { found: `status ${refusal.status}` }), { expected });
    if (!view.home) return cantTell('the home page was not read', { expected });
    return overSite(failed(place, { found: 'open to everybody' }), { expected });
  },
  recipe: () => ({
    steps: 'Switch on password protection for this place at the host, or in the server’s configuration.',
    paste: [
      { label: 'nginx', text: 'auth_basic "Staging";\nauth_basic_user_file /etc/nginx/staging.htpasswd;' },
      {
        label: 'Apache',
        text: 'AuthType Basic\nAuthName "Staging"\nAuthUserFile /etc/apache2/staging.htpasswd\nRequire valid-user',
      },
    ],
  }),
};
