import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('delivery.staging-locked', {
  'certain-addresses-only': 'certain addresses only',
});

export const stagingLocked = defineCheck({
  id: 'delivery.staging-locked',
  title: 'Staging asks for credentials',
  fault: 'Staging is open to everybody',
  severity: 'minor',
  situations: ['staging'],
  scope: 'site',
  reads: ['http', 'pages'],
  why: 'A password keeps out search engines, competitors and curious customers at once.',
  source: 'common practice',
  messages: { expected: 'credentials, or only certain addresses let in' },
  judge(context) {
    const { view, evidence } = context;
    const { expected } = context.words;
    const place = evidence.target.url;
    if (evidence.target.wayIn === 'addresses')
      return overSite(context, passed(place, { found: msg('certain-addresses-only') }));
    if (view.shutDoor) return overSite(context, passed(place, { found: view.shutDoor }));
    const refusal = view.refusals.find((r) => r.evidence.via === 'home');
    if (refusal?.status === 401 || refusal?.status === 403)
      return overSite(context, passed(place, { found: commonMessage('status', { status: refusal.status }) }));
    if (!view.home) return cantTell(commonMessage('home-not-read'), { expected });
    return overSite(context, failed(place, { found: commonMessage('open-to-everybody') }));
  },
  recipe: () => ({
    steps:
      'Switch on password protection for this environment at the host, or in the server’s configuration.',
    paste: [
      { label: 'nginx', text: 'auth_basic "Staging";\nauth_basic_user_file /etc/nginx/staging.htpasswd;' },
      {
        label: 'Apache',
        text: 'AuthType Basic\nAuthName "Staging"\nAuthUserFile /etc/apache2/staging.htpasswd\nRequire valid-user',
      },
    ],
  }),
});
