import { finalStatus, headerValues, lastAnswer } from '#core/facts/evidence';
import { conditionalHeader } from '#core/recipes/conditional-header';
import { FINGERPRINT } from '#core/checks/kit/fingerprint';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed } from '#core/checks/kit/judgement';
import { webAddress } from '#core/checks/view/web-address';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('delivery.cached', {
  'no-cache-control': 'no Cache-Control',
});

/** A fingerprint in a file's name, or in its query. */
const FINGERPRINTED = new RegExp(
  String.raw`[._-]${FINGERPRINT}\.(?:m?js|css|woff2?|png|jpe?g|webp|avif|svg)$|[?&](?:v|ver|hash)=[\w.-]{6,}$`,
  'i',
);

const FOREVER = 'public, max-age=31536000, immutable';

export const cached = defineCheck({
  id: 'delivery.cached',
  title: 'Fingerprinted files are cached for long',
  fault: 'A fingerprinted file is not cached for long',
  severity: 'minor',
  situations: ['live'],
  scope: 'asset',
  facts: ['assets'],
  needs: { pages: true },
  why: 'A file whose name changes with its contents need not be asked for twice.',
  source: 'RFC 9111 5.2.2.1; common practice',
  parameters: {
    seconds: { default: 604_800, min: 3600, max: 31_536_000, unit: 'seconds', meaning: 'least max-age' },
  },
  messages: {
    expected: ({ parameters }) => `max-age of at least ${parameters.seconds}`,
    none: 'no file carries a fingerprint',
  },
  judge(context) {
    const { evidence, view, parameters } = context;
    const files = evidence.assets.filter(
      (a) =>
        view.siteHosts.has(webAddress(a.url)?.host ?? '') &&
        FINGERPRINTED.test(a.url.slice(a.url.indexOf('/', 8))) &&
        [200, 206].includes(finalStatus(a.chain) ?? 0),
    );
    return overPlaces(
      context,
      files.map((a) => {
        const value = headerValues(lastAnswer(a.chain), 'cache-control').join(', ');
        const age = /no-store|no-cache/i.test(value)
          ? 0
          : Number(/(?:^|[,\s])max-age\s*=\s*"?(\d+)/i.exec(value)?.[1] ?? 0);
        return (age >= parameters.seconds ? passed : failed)(a.url, {
          found: verbatim(value || undefined) ?? msg('no-cache-control'),
          raw: value ? `Cache-Control: ${value}` : undefined,
        });
      }),
    );
  },
  recipe: () => ({
    steps: 'Send this with files that carry a fingerprint, and with no others.',
    paste: [
      { label: 'Header', text: `Cache-Control: ${FOREVER}` },
      ...conditionalHeader({
        variable: 'long_lived',
        header: 'Cache-Control',
        value: FOREVER,
        pattern: String.raw`^/[^?\s]*[._-]${FINGERPRINT}\.(?:m?js|css|woff2?)(?:\?|$)`,
      }),
    ],
  }),
});
