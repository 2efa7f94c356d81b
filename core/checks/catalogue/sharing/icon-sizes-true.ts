import { normaliseUrl } from '#core/extract/address';
import { where, type Check } from '#core/checks/kit/check';
import { failed, overPlaces, passed } from '#core/checks/kit/judgement';
import { offerOf, sizesInWords } from './icons';

export const iconSizesTrue: Check = {
  id: 'sharing.icon-sizes-true',
  section: 'sharing',
  title: 'Declared icon sizes are the real ones',
  severity: 'minor',
  situations: where('SL'),
  scope: 'image',
  needs: 'pages',
  why: 'Browsers choose by the declaration, and enlarge what is smaller than it says.',
  source: 'HTML #attr-link-sizes',
  judge({ evidence, view }) {
    const links = (view.home?.facts.links ?? []).filter(
      (l) => l.sizes && l.rel.some((r) => r === 'icon' || r.startsWith('apple-touch-icon')),
    );
    return overPlaces(
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
            found: sizesInWords([offer]),
            expected: link.sizes,
            raw: link.raw,
          }),
        ];
      }),
      { expected: 'the size that the file has', unit: ['icon', 'icons'], none: 'no icon declares a size' },
    );
  },
  recipe: (_, finding) => ({
    steps: 'Declare what the files are, or upload them in the sizes declared.',
    paste: finding.places
      .filter((p) => p.outcome === 'failed')
      .map((p) => ({
        label: p.place,
        text: (p.raw ?? '').replace(
          /sizes=("|')?[^"'\s>]*("|')?/i,
          `sizes="${(p.found ?? '').replace(/ × /g, 'x').replace(/, /g, ' ')}"`,
        ),
      })),
  }),
};
