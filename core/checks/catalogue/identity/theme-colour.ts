import { formatHex, parse } from 'culori';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('identity.theme-colour', {
  'no-theme-colour': 'no theme colour',
});

/**
 * A colour of CSS as six hexadecimal digits (CSS Color 4: hex, names, rgb(), hsl() and the rest), or undefined
 * when it is none. What shines through counts as if it did not.
 */
export function hexColour(text: string): string | undefined {
  const written = text.trim().toLowerCase();
  const colour = parse(/^[0-9a-f]{3,8}$/.test(written) ? `#${written}` : written);
  return colour && formatHex(colour).slice(1);
}

export const themeColour = defineCheck({
  id: 'identity.theme-colour',
  title: 'theme-color is one of the brief’s colours',
  fault: 'theme-color is missing or not one of the brief’s',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'site',
  facts: ['manifest'],
  needs: { brief: ['colours'], pages: true },
  why: 'Browsers and phones colour their own frame with it.',
  source: 'HTML; Web App Manifest',
  messages: { expected: ({ brief }) => brief.colours.map((c) => `${c.value} (${c.role})`).join(' or ') },
  judge(context) {
    const { brief, view, evidence } = context;
    const { expected } = context.words;
    if (!view.home) return cantTell(commonMessage('home-not-read'), { expected });
    const good = new Set(brief.colours.map((c) => hexColour(c.value)));
    const metas = view.home.facts.metas
      .filter((m) => m.name === 'theme-color')
      .map((m) => ({ text: m.content, raw: m.raw }));
    const manifest = evidence.manifest?.facts?.themeColour;
    const stated = metas.length
      ? metas
      : manifest
        ? [{ text: manifest, raw: `"theme_color": ${JSON.stringify(manifest)}` }]
        : [];
    if (!stated.length) return overSite(context, failed(view.home.url, { found: msg('no-theme-colour') }));
    // several may stand there for light and dark; one of the client's is enough
    const hit = stated.find((s) => {
      const hex = hexColour(s.text);
      return hex !== undefined && good.has(hex);
    });
    const hex = hexColour(stated[0]!.text);
    return overSite(
      context,
      hit
        ? passed(view.home.url, { found: verbatim(hit.text), raw: hit.raw })
        : failed(view.home.url, {
            found: verbatim(stated[0]!.text),
            raw: stated[0]!.raw,
            ...(hex
              ? { adopt: { field: 'colours', how: 'add', value: { role: 'theme', value: hex } } as const }
              : {}),
          }),
    );
  },
  recipe: ({ brief }) => ({
    steps: 'Put the colour into the head of the template.',
    paste: [{ label: 'Tag', text: `<meta name="theme-color" content="${brief.colours?.[0]?.value ?? ''}">` }],
  }),
});
