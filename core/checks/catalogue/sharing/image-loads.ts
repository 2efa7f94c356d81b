import { parseUrl } from '#core/extract/address';
import type { MetaTag } from '#core/extract/html';
import { finalStatus, type AssetEvidence, type Evidence } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed, unsure } from '#core/checks/kit/judgement';
import { memoize } from '#core/remembering';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('sharing.image-loads', {
  'picture-not-fetched': 'the picture was not fetched',
  'status-of': '{given}: status {status}',
  'not-a-picture': 'no picture',
  'no-picture': '{given}: {imageError}',
  size: '{width} × {height}',
});

function assetAt(evidence: Evidence, url: string): AssetEvidence | undefined {
  return evidence.assets.find((a) => a.url === url);
}

function judgePicture(page: string, meta: MetaTag, asset: AssetEvidence | undefined): PlaceResult {
  const { raw } = meta;
  const given = meta.content.trim();
  if (!asset) return unsure(page, msg('picture-not-fetched'), { raw });
  const status = finalStatus(asset.chain);
  if (status === undefined) {
    const { code, message } = asset.chain.error ?? {};
    const why = verbatim(message) ?? commonMessage('no-answer');
    return code === 'forbidden-address' || code === 'timeout'
      ? unsure(page, why, { raw })
      : failed(page, { found: why, raw });
  }
  if (status !== 200) return failed(page, { found: msg('status-of', { given, status }), raw });
  if (!asset.image)
    return failed(page, {
      found: msg('no-picture', { given, imageError: asset.imageError ?? msg('not-a-picture') }),
      raw,
    });
  return passed(page, { found: msg('size', { width: asset.image.width, height: asset.image.height }), raw });
}

export const imageLoads = defineCheck({
  id: 'sharing.image-loads',
  title: 'og:image loads as a picture',
  fault: 'og:image does not load as a picture',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['assets'],
  needs: { pages: true },
  why: 'The service that shows the preview fetches the picture itself, without the page’s address to complete a half one.',
  source: 'Open Graph protocol',
  messages: {
    expected: 'an absolute https address that gives a picture',
    none: 'no page names a share picture',
  },
  judge(context) {
    // mostly the same one on every page
    const pictureAddress = memoize((given: string) => parseUrl(given)?.href);
    return overPages(context, (page) => {
      const meta = page.openGraph('og:image');
      const given = meta?.content.trim();
      if (!meta || !given) return null;
      const address = pictureAddress(given);
      if (!address)
        return failed(page.url, { found: commonMessage('not-absolute', { given }), raw: meta.raw });
      if (!address.startsWith('https:')) return failed(page.url, { found: verbatim(given), raw: meta.raw });
      return judgePicture(page.url, meta, assetAt(context.evidence, address));
    });
  },
  recipe: () => ({
    steps: 'Upload the picture again and name it with its full https address.',
    paste: [{ label: 'Tag', text: '<meta property="og:image" content="https://…/share.png">' }],
  }),
});
