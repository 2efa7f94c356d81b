import { finalStatus } from '#core/facts/evidence';
import { parseUrl } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';

/**
 * Whether an address is within a scope: same origin, path beginning with the scope's (Web Application
 * Manifest, "within scope").
 */
export function withinScope(address: string, scope: string): boolean {
  const a = parseUrl(address),
    s = parseUrl(scope);
  return a !== undefined && s !== undefined && a.origin === s.origin && a.pathname.startsWith(s.pathname);
}

export const manifest = defineCheck({
  id: 'sharing.manifest',
  title: 'The web app manifest is complete',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  needs: { pages: true },
  why: 'Phones take name and icon from it when somebody keeps the site on the home screen.',
  source: 'Web Application Manifest; the two sizes are common practice',
  messages: { expected: 'it parses, has a name, icons of 192 and 512 px, and a start_url within its scope' },
  judge(context) {
    const { evidence } = context;
    const m = evidence.manifest;
    if (!m) return inapplicable('no manifest is linked');
    const { expected } = context.words;
    const status = finalStatus(m.chain);
    if (status === undefined) return cantTell(m.chain.error?.message ?? 'no answer', { expected });
    const f = m.facts;
    if (status !== 200 || !f) return overSite(context, failed(m.url, { found: `status ${status}` }));
    const raw = m.text?.slice(0, 2000);
    if (f.error) return overSite(context, failed(m.url, { found: f.error, raw }));
    const sizes = new Set(f.icons.flatMap((i) => i.sizes));
    const dead = f.icons.find((i) => {
      const a = evidence.assets.find((x) => x.url === i.src);
      return a && a.chain.end === 'answer' && finalStatus(a.chain) !== 200;
    });
    const lacking = [
      ...(f.name || f.shortName ? [] : ['no name']),
      ...['192x192', '512x512']
        .filter((s) => !sizes.has(s) && !sizes.has('any'))
        .map((s) => `no icon of ${s.split('x')[0]} px`),
      ...(dead ? [`${dead.src} is not there`] : []),
      ...(f.startUrl && !withinScope(f.startUrl, f.scope ?? new URL('.', f.startUrl).href)
        ? [`start_url ${f.startUrl} is outside ${f.scope}`]
        : []),
      ...(f.startUrl && parseUrl(f.startUrl)?.origin !== new URL(m.url).origin
        ? ['start_url is on another origin']
        : []),
    ];
    return overSite(
      context,
      (lacking.length ? failed : passed)(m.url, {
        found: lacking.join('; ') || `${f.name ?? f.shortName}, ${[...sizes].join(', ')}`,
        raw,
      }),
    );
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
            icons: [192, 512].map((s) => ({ src: `/icon-${s}.png`, sizes: `${s}x${s}`, type: 'image/png' })),
          },
          null,
          2,
        ),
      },
    ],
  }),
});
