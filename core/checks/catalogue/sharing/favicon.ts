import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { offerOf, sizesOf } from './icons';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('sharing.favicon', {
  'no-icon-asked': 'no icon was asked for',
});

export const favicon = defineCheck({
  id: 'sharing.favicon',
  title: 'Favicon loads, is square and large enough',
  fault: 'Favicon is missing, not square or too small',
  severity: 'major',
  situations: ['staging', 'holding', 'live'],
  scope: 'site',
  facts: ['assets'],
  needs: { pages: true },
  why: 'The icon is how people find the tab and the bookmark again; without one the host’s or a blank sheet shows.',
  source: 'HTML #rel-icon; common practice',
  parameters: {
    size: {
      default: 32,
      min: 16,
      max: 512,
      unit: 'px',
      meaning: 'least size where the host profile requires none',
    },
  },
  judge(context) {
    const { evidence, view, profile, parameters } = context;
    const required = profile.icons?.required ?? [];
    const expected = required.length
      ? `a square icon of ${required.join(' and ')} px, as the host requires`
      : `a square icon of at least ${parameters.size} px, or SVG`;
    const offers = evidence.assets.filter((a) => a.roles.includes('icon')).map(offerOf);
    const place = offers[0]?.asset.url ?? `https://${view.preferredHost}/favicon.ico`;
    if (!offers.length) return cantTell(msg('no-icon-asked'), { expected });
    const usable = offers.filter((o) => !o.fault);
    if (!usable.length) {
      if (offers.every((o) => o.asset.chain.error?.code === 'timeout'))
        return cantTell(offers[0]!.fault!, { expected });
      return overSite(context, failed(place, { found: sizesOf(offers.slice(0, 3)) }), {
        expected,
      });
    }
    const square = usable.filter((o) => o.vector || o.sizes.some((s) => s.width === s.height));
    const sizes = new Set(
      square.flatMap((o) => o.sizes.filter((s) => s.width === s.height).map((s) => s.width)),
    );
    const vector = square.some((o) => o.vector);
    const good = required.length
      ? required.every((r) => sizes.has(r))
      : vector || [...sizes].some((s) => s >= parameters.size);
    const raw = view.home?.facts.links
      .filter((l) => l.rel.includes('icon'))
      .map((l) => l.raw)
      .join('\n');
    return overSite(
      context,
      (square.length && good ? passed : failed)(place, {
        found: sizesOf(usable),
        raw: raw || undefined,
      }),
      { expected },
    );
  },
  recipe: ({ profile }) => ({
    steps: 'Upload a square icon in the sizes the host asks for, and name it in the head.',
    paste: [
      {
        label: 'Tags',
        text: (profile.icons?.required?.length
          ? profile.icons.required.map(
              (r) => `<link rel="icon" type="image/png" sizes="${r}x${r}" href="/icon-${r}.png">`,
            )
          : [
              '<link rel="icon" href="/favicon.ico" sizes="32x32">',
              '<link rel="icon" href="/icon.svg" type="image/svg+xml">',
            ]
        ).join('\n'),
      },
    ],
  }),
});
