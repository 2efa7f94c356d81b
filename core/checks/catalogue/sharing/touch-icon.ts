import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { TOUCH_SIZE } from '#core/pictures/icon-sizes';
import { offerOf, sizesOf } from './icons';
import { commonMessage } from '#core/text/common-messages';

export const touchIcon = defineCheck({
  id: 'sharing.touch-icon',
  title: 'Touch icon loads, square and large enough',
  fault: 'Touch icon is missing, not square or too small',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  facts: ['assets'],
  needs: { pages: true },
  why: 'On a phone’s home screen the site is a picture; without one it is a shrunken page.',
  source: 'common practice',
  parameters: {
    size: {
      default: TOUCH_SIZE,
      min: 57,
      max: 1024,
      unit: 'px',
      meaning: 'least size where the host profile names none',
    },
  },
  judge(context) {
    const { evidence, view, profile, parameters } = context;
    const size = profile.icons?.touch ?? parameters.size;
    const expected = profile.icons?.touch
      ? `a square touch icon of ${size} px`
      : `a square touch icon of at least ${size} px`;
    const offers = evidence.assets.filter((a) => a.roles.includes('touch-icon')).map(offerOf);
    const place = offers[0]?.asset.url ?? `https://${view.preferredHost}/apple-touch-icon.png`;
    if (offers.length && offers.every((o) => o.asset.chain.error?.code === 'timeout'))
      return cantTell(offers[0]!.fault!, { expected });
    const good = offers.some(
      (o) =>
        !o.fault &&
        o.sizes.some(
          (s) => s.width === s.height && (profile.icons?.touch ? s.width === size : s.width >= size),
        ),
    );
    return overSite(
      context,
      (good ? passed : failed)(place, {
        found: offers.length ? sizesOf(offers) : commonMessage('none'),
      }),
      { expected },
    );
  },
  recipe: ({ profile, parameters }) => ({
    steps: 'Upload a square picture without transparent parts and name it in the head.',
    paste: [
      {
        label: 'Tag',
        text: `<link rel="apple-touch-icon" sizes="${profile.icons?.touch ?? parameters.size}x${profile.icons?.touch ?? parameters.size}" href="/apple-touch-icon.png">`,
      },
    ],
  }),
});
