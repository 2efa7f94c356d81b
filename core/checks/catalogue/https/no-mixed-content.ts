import { normaliseUrl } from '#core/extract/address';
import { headerValues, lastAnswer, type Evidence } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('https.no-mixed-content', {
  upgraded: 'upgraded by the page’s policy',
  loads: '{url}{several, select, yes { and {badCount} more} other {}}',
});

/**
 * Kinds that browsers block on an https page; pictures (those of style sheets too), audio and video are upgraded
 * instead (W3C Mixed Content, level 2).
 */
const BLOCKED = new Set(['script', 'style', 'frame', 'object', 'font', 'srcset', 'other']);

interface Insecure {
  url: string;
  raw: string;
}

/** What each linked style sheet loads that browsers block: other sheets, and fonts. */
function insecureIn(assets: Evidence['assets']): ReadonlyMap<string, Insecure[]> {
  const found = new Map<string, Insecure[]>();
  for (const { url, css, chain } of assets) {
    if (!css) continue;
    const base = lastAnswer(chain)?.url ?? url;
    const bad = [...(css.imports ?? []), ...css.fontFaces.flatMap((f) => f.sources)]
      .flatMap((address) => normaliseUrl(address, base) ?? [])
      .filter((address) => address.startsWith('http:'))
      .map((address) => ({ url: address, raw: `${url}: ${address}` }));
    if (bad.length) found.set(url, bad);
  }
  return found;
}

const upgrades = (policy: string): boolean => /upgrade-insecure-requests/i.test(policy);

export const noMixedContent = defineCheck({
  id: 'https.no-mixed-content',
  title: 'Pages load no mixed content',
  fault: 'A page loads mixed content',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['assets', 'resources'],
  needs: { pages: true },
  why: 'Browsers block scripts, styles and frames from http on an https page, so parts of it are silently missing.',
  source: 'W3C Mixed Content',
  messages: { expected: 'https for everything the page loads', none: 'no page came over https' },
  judge(context) {
    const sheets = insecureIn(context.evidence.assets);
    return overPages(context, (page) => {
      if (!page.url.startsWith('https:')) return null;
      const bad: Insecure[] = page.facts.resources.filter(
        (r) => r.url.startsWith('http:') && BLOCKED.has(r.kind),
      );
      if (sheets.size)
        for (const r of page.facts.resources)
          if (r.kind === 'style') bad.push(...(sheets.get(normaliseUrl(r.url) ?? r.url) ?? []));
      if (!bad.length) return page.passed;
      if (
        headerValues(page.answer, 'content-security-policy').some(upgrades) ||
        page.facts.metas.some((m) => m.httpEquiv === 'content-security-policy' && upgrades(m.content))
      )
        return passed(page.url, { found: msg('upgraded') });
      return failed(page.url, {
        found: msg('loads', {
          url: bad[0]!.url,
          several: bad.length > 1 ? 'yes' : 'no',
          badCount: bad.length > 1 ? bad.length - 1 : undefined,
        }),
        raw: bad[0]!.raw,
      });
    });
  },
  recipe: (_, finding) => ({
    steps: 'Change these addresses to https in the page or template.',
    paste: failedPlaces(finding, 5).map((p) => ({
      label: p.place,
      text: (p.raw ?? '').replace('http:', 'https:'),
    })),
  }),
});
