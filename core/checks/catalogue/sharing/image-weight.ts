import { lastAnswer } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed } from '#core/checks/kit/judgement';
import { commonMessage } from '#core/text/common-messages';

export const imageWeight = defineCheck({
  id: 'sharing.image-weight',
  title: 'og:image is light enough',
  fault: 'og:image is too heavy',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'image',
  facts: ['assets'],
  needs: { pages: true },
  why: 'Networks drop a picture that is too heavy and show the link without one.',
  source: 'common practice',
  parameters: {
    bytes: {
      default: 2_000_000,
      min: 50_000,
      max: 20_000_000,
      unit: 'bytes',
      meaning: 'heaviest, where the host profile has no limit',
    },
  },
  messages: { none: 'no share picture could be read' },
  judge(context) {
    const { evidence, profile, parameters } = context;
    const limit = profile.sharePictureBytes ?? parameters.bytes;
    const pictures = evidence.assets.filter((a) => a.roles.includes('share-picture') && a.image);
    return overPlaces(
      context,
      pictures.map((a) => {
        const bytes = a.size ?? lastAnswer(a.chain)?.bytes?.decoded ?? 0;
        return (bytes <= limit ? passed : failed)(a.url, { found: commonMessage('bytes', { bytes }) });
      }),
      {
        expected: `at most ${limit.toLocaleString('en')} bytes`,
      },
    );
  },
  recipe: () => ({
    steps:
      'Save the picture anew as JPEG with a quality of about 80, or in fewer pixels, and upload it under a new name.',
  }),
});
