/** Icons: which sizes an asset offers. */
import { finalStatus, type AssetEvidence } from '#core/facts/evidence';
import { commonMessage, joinMessages } from '#core/text/common-messages';
import { verbatim, type Message } from '#core/facts/message';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('sharing.icons', { 'no-picture': 'no picture' });

export interface IconOffer {
  asset: AssetEvidence;
  vector: boolean;
  sizes: { width: number; height: number }[];
  fault?: Message;
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
          ? (verbatim(asset.chain.error?.message) ?? commonMessage('no-answer'))
          : commonMessage('status', { status }),
    };
  if (!asset.image)
    return { asset, vector: false, sizes: [], fault: verbatim(asset.imageError) ?? msg('no-picture') };
  return {
    asset,
    vector: asset.image.type === 'svg',
    sizes: asset.image.sizes ?? [{ width: asset.image.width, height: asset.image.height }],
  };
}

/** What icons offer: "48 × 48, 240 × 240", or why they cannot be used. */
export const sizesOf = (offers: readonly IconOffer[]): Message =>
  joinMessages(
    offers.map(
      (o) =>
        o.fault ?? verbatim(o.vector ? 'SVG' : o.sizes.map((s) => `${s.width} × ${s.height}`).join(', ')),
    ),
  );
