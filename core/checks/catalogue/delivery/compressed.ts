import { headerValues, lastAnswer, type Chain } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed } from '#core/checks/kit/judgement';
import { webAddress } from '#core/checks/view/web-address';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('delivery.compressed', {
  'plain-bytes': 'plain, {decoded, number} bytes',
});

const TEXT =
  /^(text\/|application\/(javascript|json|ld\+json|xml|manifest\+json|xhtml\+xml)|image\/svg\+xml)/i;

export const compressed = defineCheck({
  id: 'delivery.compressed',
  title: 'Text is served compressed',
  fault: 'Text is served uncompressed',
  severity: 'minor',
  situations: ['live'],
  scope: 'asset',
  facts: ['assets'],
  needs: { pages: true },
  why: 'Text shrinks to a quarter; on a phone that is the wait.',
  source: 'RFC 9110 8.4',
  parameters: {
    bytes: {
      default: 1024,
      min: 0,
      max: 100_000,
      unit: 'bytes',
      meaning: 'smaller answers need not be compressed',
    },
  },
  messages: { expected: 'a Content-Encoding', none: 'no text is large enough to need it' },
  judge(context) {
    const { evidence, view, parameters } = context;
    const places: PlaceResult[] = [];
    const look = (url: string, chain: Chain) => {
      const answer = lastAnswer(chain);
      const type = headerValues(answer, 'content-type')[0] ?? '';
      if (
        !answer ||
        answer.status !== 200 ||
        !TEXT.test(type) ||
        (answer.bytes?.decoded ?? 0) <= parameters.bytes
      )
        return;
      const encoding = headerValues(answer, 'content-encoding')[0];
      const good = encoding && encoding.toLowerCase() !== 'identity';
      places.push(
        (good ? passed : failed)(url, {
          found: good ? verbatim(encoding) : msg('plain-bytes', { decoded: answer.bytes!.decoded }),
          raw: `Content-Type: ${type}${encoding ? `\nContent-Encoding: ${encoding}` : ''}`,
        }),
      );
    };
    for (const page of view.pages) look(page.url, page.evidence.chain);
    for (const asset of evidence.assets)
      if (view.siteHosts.has(webAddress(asset.url)?.host ?? '')) look(asset.url, asset.chain);
    return overPlaces(context, places);
  },
  recipe: () => ({
    // RFC 9239: text/javascript is the type of scripts now; both are sent
    steps: 'Switch compression on at the host or in the server’s configuration.',
    paste: [
      {
        label: 'nginx',
        text: 'gzip on;\ngzip_types text/css text/javascript application/javascript application/json image/svg+xml;',
      },
      {
        label: 'Apache',
        text: 'AddOutputFilterByType DEFLATE text/html text/css text/javascript application/javascript application/json image/svg+xml',
      },
    ],
  }),
});
