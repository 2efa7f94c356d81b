/** Icons: which sizes an asset offers. */
import { finalStatus, type AssetEvidence } from '#core/facts/evidence';

export interface IconOffer {
  asset: AssetEvidence;
  vector: boolean;
  sizes: { width: number; height: number }[];
  fault?: string;
}

/** What an icon file really holds; `fault` says why it cannot be used. */
export function offerOf(asset: AssetEvidence): IconOffer {
  const status = finalStatus(asset.chain);
  if (status !== 200)
    return {
      asset,
      vector: false,
      sizes: [],
      fault: status === undefined ? (asset.chain.error?.message ?? 'no answer') : `status ${status}`,
    };
  if (!asset.image) return { asset, vector: false, sizes: [], fault: asset.imageError ?? 'no picture' };
  return {
    asset,
    vector: asset.image.type === 'svg',
    sizes: asset.image.sizes ?? [{ width: asset.image.width, height: asset.image.height }],
  };
}

/** In words: "48 × 48, 240 × 240". */
export function sizesInWords(offers: IconOffer[]): string {
  return offers
    .map((o) => o.fault ?? (o.vector ? 'SVG' : o.sizes.map((s) => `${s.width} × ${s.height}`).join(', ')))
    .join('; ');
}
