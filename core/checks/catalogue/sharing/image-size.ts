import { defineCheck } from '#core/checks/kit/check';
import { SHARE_SIZE } from '#core/pictures/crop';
import { failed, overPlaces, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('sharing.image-size', {
  size: '{w} × {h}{isSmall, select, yes {} other {{isOff, select, yes {, ratio {w2} : 1} other {}}}}',
});

export const imageSize = defineCheck({
  id: 'sharing.image-size',
  title: 'og:image is at least 1200 x 630',
  fault: 'og:image is smaller than 1200 x 630 or off its ratio',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'image',
  facts: ['assets'],
  needs: { pages: true },
  why: 'A smaller or squarer picture is cropped, or shown as a thumbnail beside the text.',
  source: 'common practice',
  parameters: {
    width: { default: SHARE_SIZE.width, min: 200, max: 4000, unit: 'px', meaning: 'least width' },
    height: { default: SHARE_SIZE.height, min: 100, max: 4000, unit: 'px', meaning: 'least height' },
    tolerance: { default: 2, min: 0, max: 50, unit: '%', meaning: 'how far the ratio may be off' },
  },
  messages: {
    expected: ({ parameters: { width, height } }) =>
      `at least ${width} × ${height}, ${(width / height).toFixed(2)} : 1`,
    none: 'no share picture could be read',
  },
  judge(context) {
    const { evidence, parameters } = context;
    const { width, height, tolerance } = parameters;
    const places = evidence.assets
      .filter((a) => a.roles.includes('share-picture') && a.image)
      .map((a) => {
        const { width: w, height: h } = a.image!;
        // exact: |w/h - W/H| <= tolerance % of W/H, without dividing
        const off = Math.abs(w * height - width * h) * 100 > tolerance * width * h;
        const small = w < width || h < height;
        return (small || off ? failed : passed)(a.url, {
          found: msg('size', {
            w,
            h,
            isSmall: small ? 'yes' : 'no',
            isOff: off ? 'yes' : 'no',
            w2: off ? (w / h).toFixed(2) : undefined,
          }),
        });
      });
    return overPlaces(context, places);
  },
  recipe: ({ parameters }) => ({
    steps: `Make the picture ${parameters.width} × ${parameters.height} px, with what matters in the middle, and upload it under a new name so that no old copy is shown.`,
  }),
});
