import { parseUrl } from '#core/extract/address';
import { finalStatus, type AssetEvidence, type Evidence } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed, unsure } from '#core/checks/kit/judgement';
import { remembering } from '#core/remembering';

export function assetAt(evidence: Evidence, url: string): AssetEvidence | undefined {
  return evidence.assets.find((a) => a.url === url);
}

export const imageLoads = defineCheck({
  id: 'sharing.image-loads',
  title: 'The share picture loads',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'The service that shows the preview fetches the picture itself, without the page’s address to complete a half one.',
  source: 'Open Graph protocol',
  messages: {
    expected: 'an absolute https address that gives a picture',
    none: 'no page names a share picture',
  },
  judge(context) {
    // mostly the same one on every page
    const pictureAddress = remembering((given: string) => parseUrl(given)?.href);
    return overPages(context, (page) => {
      const meta = page.openGraph('og:image');
      const given = meta?.content.trim();
      if (!meta || !given) return null;
      const address = pictureAddress(given);
      if (!address) return failed(page.url, { found: `not absolute: ${given}`, raw: meta.raw });
      if (!address.startsWith('https:')) return failed(page.url, { found: given, raw: meta.raw });
      const asset = assetAt(context.evidence, address);
      const status = asset ? finalStatus(asset.chain) : undefined;
      if (!asset) return unsure(page.url, 'the picture was not fetched', { raw: meta.raw });
      if (status === undefined)
        return asset.chain.error?.code === 'forbidden-address' || asset.chain.error?.code === 'timeout'
          ? unsure(page.url, asset.chain.error.message, { raw: meta.raw })
          : failed(page.url, { found: asset.chain.error?.message ?? 'no answer', raw: meta.raw });
      if (status !== 200) return failed(page.url, { found: `${given}: status ${status}`, raw: meta.raw });
      if (!asset.image)
        return failed(page.url, { found: `${given}: ${asset.imageError ?? 'no picture'}`, raw: meta.raw });
      return passed(page.url, { found: `${asset.image.width} × ${asset.image.height}`, raw: meta.raw });
    });
  },
  recipe: () => ({
    steps: 'Upload the picture again and name it with its full https address.',
    paste: [{ label: 'Tag', text: '<meta property="og:image" content="https://…/share.png">' }],
  }),
});
