import { finalStatus, type AssetEvidence } from '#core/facts/evidence';
import type { ManifestFacts } from '#core/extract/manifest';
import { parseUrl } from '#core/extract/address';
import { MANIFEST_SIZES } from '#core/pictures/icon-sizes';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim, type Message } from '#core/facts/message';
import { commonMessage, joinMessages } from '#core/text/common-messages';

const msg = defineMessages('sharing.manifest', {
  'no-icon-of': 'no icon of {size} px',
  'icon-dead': '{src} is not there',
  'start-outside-scope': 'start_url {startUrl} is outside {scope}',
  'foreign-start': 'start_url is on another origin',
  'no-name': 'no name',
  'no-manifest-linked': 'no manifest is linked',
});

/**
 * Whether an address is within a scope: same origin, path beginning with the scope's (Web Application
 * Manifest, "within scope").
 */
function withinScope(address: string, scope: string): boolean {
  const a = parseUrl(address),
    s = parseUrl(scope);
  return a !== undefined && s !== undefined && a.origin === s.origin && a.pathname.startsWith(s.pathname);
}

function lackingIcons({ icons }: ManifestFacts, assets: readonly AssetEvidence[]): Message[] {
  const sizes = new Set(icons.flatMap((i) => i.sizes));
  const missing = MANIFEST_SIZES.filter((s) => !sizes.has(`${s}x${s}`) && !sizes.has('any'));
  const dead = icons.find((i) => {
    const asset = assets.find((a) => a.url === i.src);
    return asset?.chain.end === 'answer' && finalStatus(asset.chain) !== 200;
  });
  return [
    ...missing.map((s) => msg('no-icon-of', { size: s })),
    ...(dead ? [msg('icon-dead', { src: dead.src })] : []),
  ];
}

function strayStart({ startUrl, scope }: ManifestFacts, url: string): Message[] {
  if (!startUrl) return [];
  const inScope = withinScope(startUrl, scope ?? new URL('.', startUrl).href);
  const isOwn = parseUrl(startUrl)?.origin === new URL(url).origin;
  return [
    ...(inScope ? [] : [msg('start-outside-scope', { startUrl, scope })]),
    ...(isOwn ? [] : [msg('foreign-start')]),
  ];
}

export const manifest = defineCheck({
  id: 'sharing.manifest',
  title: 'Web app manifest is complete',
  fault: 'Web app manifest is incomplete',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  facts: ['assets', 'manifest'],
  needs: { pages: true },
  why: 'Phones take name and icon from it when somebody keeps the site on the home screen.',
  source: 'Web Application Manifest; the two sizes are common practice',
  messages: { expected: 'it parses, has a name, icons of 192 and 512 px, and a start_url within its scope' },
  judge(context) {
    const { evidence } = context;
    const m = evidence.manifest;
    if (!m) return inapplicable(msg('no-manifest-linked'));
    const { expected } = context.words;
    const status = finalStatus(m.chain);
    if (status === undefined)
      return cantTell(verbatim(m.chain.error?.message) ?? commonMessage('no-answer'), { expected });
    const f = m.facts;
    if (status !== 200 || !f)
      return overSite(context, failed(m.url, { found: commonMessage('status', { status }) }));
    const raw = m.text?.slice(0, 2000);
    if (f.error) return overSite(context, failed(m.url, { found: verbatim(f.error), raw }));
    const lacking = [
      ...(f.name || f.shortName ? [] : [msg('no-name')]),
      ...lackingIcons(f, evidence.assets),
      ...strayStart(f, m.url),
    ];
    const sizes = new Set(f.icons.flatMap((i) => i.sizes));
    const found = lacking.length
      ? joinMessages(lacking)
      : verbatim(`${f.name ?? f.shortName}, ${[...sizes].join(', ')}`);
    return overSite(context, (lacking.length ? failed : passed)(m.url, { found, raw }));
  },
  recipe: ({ brief }) => ({
    steps: 'Complete the file and serve it as application/manifest+json.',
    paste: [
      {
        label: 'site.webmanifest',
        text: JSON.stringify(
          {
            name: brief.name ?? '',
            start_url: '/',
            scope: '/',
            icons: MANIFEST_SIZES.map((s) => ({
              src: `/icon-${s}.png`,
              sizes: `${s}x${s}`,
              type: 'image/png',
            })),
          },
          null,
          2,
        ),
      },
    ],
  }),
});
