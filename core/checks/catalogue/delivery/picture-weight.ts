import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('delivery.picture-weight', {
  'size-unknown': 'the server does not say how large it is',
  'bytes-and-size':
    '{size, number} bytes{hasSize, select, yes {, {width} × {height} px} other {}}{hasPage, select, yes {, on {url}} other {}}',
});

export const pictureWeight = defineCheck({
  id: 'delivery.picture-weight',
  title: 'No single picture is too heavy',
  fault: 'A picture is too heavy',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'asset',
  facts: ['assets', 'resources'],
  needs: { pages: true },
  why: 'A photograph straight from the camera weighs more than all the rest of the page, and is shown a few hundred pixels wide.',
  source: 'common practice',
  parameters: {
    bytes: { default: 500_000, min: 20_000, max: 20_000_000, unit: 'bytes', meaning: 'heaviest' },
  },
  messages: { unit: 'picture', none: 'the pages show no picture of the site’s own' },
  judge(context) {
    const { evidence, view, parameters } = context;
    const most = parameters.bytes;
    const pictures = evidence.assets.filter(
      (a) => a.roles.includes('picture') && [200, 206].includes(finalStatus(a.chain) ?? 0),
    );
    return overPlaces(
      context,
      pictures.map((a) => {
        if (a.size === undefined) return unsure(a.url, msg('size-unknown'));
        if (a.size <= most) return passed(a.url, { found: commonMessage('bytes', { bytes: a.size }) });
        const page = view.pages.find((p) => p.loads.some((l) => l.url === a.url));
        return failed(a.url, {
          found: msg('bytes-and-size', {
            size: a.size,
            hasSize: a.image ? 'yes' : 'no',
            width: a.image ? a.image.width : undefined,
            height: a.image ? a.image.height : undefined,
            hasPage: page ? 'yes' : 'no',
            url: page ? page.url : undefined,
          }),
        });
      }),
      {
        expected: `at most ${most.toLocaleString('en')} bytes`,
      },
    );
  },
  recipe: (_, finding) => ({
    steps:
      'Make the picture as large as it is shown (twice that for dense screens), save it as WebP, AVIF or JPEG with a quality of about 80, and upload it under a new name.',
    paste: [
      {
        label: 'Pictures',
        text: failedPlaces(finding, 50)
          .map((p) => `${p.place} (${p.found})`)
          .join('\n'),
      },
    ],
  }),
});
