/** Icons: which sizes an asset offers. */
import { finalStatus, type AssetEvidence } from '#core/facts/evidence';
import { saysOfAll, together } from '#core/text/says';
import { seen, type Said } from '#core/facts/said';
import { sentences } from '#core/text/sentences';

const says = sentences('sharing.icons', { 'no-picture': 'no picture' });

export interface IconOffer {
  asset: AssetEvidence;
  vector: boolean;
  sizes: { width: number; height: number }[];
  fault?: Said;
}

/** What an icon file really holds; `fault` says why it cannot be used. */
export function offerOf(asset: AssetEvidence): IconOffer {
  const status = finalStatus(asset.chain);
  if (status !== 200)
    return {
      asset,
      vector: false,
      sizes: [],
      fault:
        status === undefined
          ? (seen(asset.chain.error?.message) ?? saysOfAll('no-answer'))
          : saysOfAll('status', { status }),
    };
  if (!asset.image)
    return { asset, vector: false, sizes: [], fault: seen(asset.imageError) ?? says('no-picture') };
  return {
    asset,
    vector: asset.image.type === 'svg',
    sizes: asset.image.sizes ?? [{ width: asset.image.width, height: asset.image.height }],
  };
}

/** What icons offer: "48 × 48, 240 × 240", or why they cannot be used. */
export const sizesOf = (offers: readonly IconOffer[]): Said =>
  together(
    offers.map(
      (o) => o.fault ?? seen(o.vector ? 'SVG' : o.sizes.map((s) => `${s.width} × ${s.height}`).join(', ')),
    ),
  );
