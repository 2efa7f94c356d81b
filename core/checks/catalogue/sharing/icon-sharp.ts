import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { offerOf, sizesOf } from './icons';
import { commonMessage } from '#core/text/common-messages';

export const iconSharp = defineCheck({
  id: 'sharing.icon-sharp',
  title: 'Favicon is sharp on dense screens',
  fault: 'Favicon is blurred on dense screens',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  facts: ['assets'],
  needs: { pages: true },
  why: 'A 32 px icon is enlarged on most of today’s screens and looks soft.',
  source: 'common practice',
  parameters: {
    size: {
      default: 64,
      min: 32,
      max: 512,
      unit: 'px',
      meaning: 'least dense size where the host profile recommends none',
    },
  },
  judge(context) {
    const { evidence, profile, parameters } = context;
    const wanted = profile.icons?.recommended ?? [];
    const expected = wanted.length
      ? `an icon of ${wanted.join(' and ')} px, as recommended for the host`
      : `an icon of at least ${parameters.size} px, or SVG`;
    const offers = evidence.assets.filter((a) => a.roles.includes('icon')).map(offerOf);
    const usable = offers.filter((o) => !o.fault);
    if (!usable.length)
      return offers.length && offers.every((o) => o.asset.chain.error?.code !== 'timeout')
        ? inapplicable(commonMessage('no-icon'))
        : cantTell(commonMessage('no-icon-readable'), { expected });
    const sizes = new Set(
      usable.flatMap((o) => o.sizes.filter((s) => s.width === s.height).map((s) => s.width)),
    );
    const good =
      usable.some((o) => o.vector) ||
      (wanted.length ? wanted.every((w) => sizes.has(w)) : [...sizes].some((s) => s >= parameters.size));
    return overSite(context, (good ? passed : failed)(usable[0]!.asset.url, { found: sizesOf(usable) }), {
      expected,
    });
  },
  recipe: ({ profile, parameters }) => {
    const sizes = profile.icons?.recommended?.length
      ? profile.icons.recommended
      : [Math.max(192, parameters.size)];
    return {
      steps: 'Upload the icon in a dense size as well, or as SVG.',
      paste: [
        {
          label: 'Tags',
          text: sizes
            .map((s) => `<link rel="icon" type="image/png" sizes="${s}x${s}" href="/icon-${s}.png">`)
            .join('\n'),
        },
      ],
    };
  },
});
