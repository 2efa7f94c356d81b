import { normaliseUrl } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed } from '#core/checks/kit/judgement';
import { offerOf, sizesOf } from './icons';

export const iconSizesTrue = defineCheck({
  id: 'sharing.icon-sizes-true',
  title: 'Icon sizes are as declared',
  fault: 'An icon’s size is not as declared',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'image',
  facts: ['assets'],
  needs: { pages: true },
  why: 'Browsers choose by the declaration, and enlarge what is smaller than it says.',
  source: 'HTML #attr-link-sizes',
  messages: { expected: 'the size that the file has', unit: 'icon', none: 'no icon declares a size' },
  judge(context) {
    const { evidence, view } = context;
    const links = (view.home?.facts.links ?? []).filter(
      (l) => l.sizes && l.rel.some((r) => r === 'icon' || r.startsWith('apple-touch-icon')),
    );
    return overPlaces(
      context,
      links.flatMap((link) => {
        const url = normaliseUrl(link.href, view.home!.url);
        const asset = evidence.assets.find((a) => a.url === url);
        const offer = asset && offerOf(asset);
        if (!offer || offer.fault) return [];
        const declared = link.sizes!.toLowerCase().split(/\s+/).filter(Boolean);
        const wrong =
          declared.find(
            (d) => d !== 'any' && !offer.vector && !offer.sizes.some((s) => `${s.width}x${s.height}` === d),
          ) ?? declared.find((d) => d === 'any' && !offer.vector);
        return [
          (wrong ? failed : passed)(url!, {
            found: sizesOf([offer]),
            expected: link.sizes,
            raw: link.raw,
          }),
        ];
      }),
    );
  },
  recipe: (_, finding) => ({
    steps: 'Declare what the files are, or upload them in the sizes declared.',
    paste: failedPlaces(finding).map((p) => ({
      label: p.place,
      text: (p.raw ?? '').replace(
        /sizes=("|')?[^"'\s>]*("|')?/i,
        `sizes="${(p.found ?? '').replace(/ × /g, 'x').replace(/, /g, ' ')}"`,
      ),
    })),
  }),
});
