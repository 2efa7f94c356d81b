import { where, type Check } from '#core/checks/kit/check';
import { failed, overPlaces, passed } from '#core/checks/kit/judgement';

export const fontsUsed: Check = {
  id: 'delivery.fonts-used',
  section: 'delivery',
  title: 'Every declared font is used',
  severity: 'minor',
  situations: where('SL'),
  scope: 'font',
  needs: 'pages',
  why: 'A theme’s leftover fonts are loaded by some browsers all the same, and need a licence.',
  source: 'common practice',
  judge({ evidence, view }) {
    const sheets = [
      ...evidence.assets.flatMap((a) => (a.css ? [{ at: a.url, css: a.css }] : [])),
      ...view.pages.flatMap((p) => (p.facts.css ? [{ at: p.url, css: p.facts.css }] : [])),
    ];
    const used = new Set(sheets.flatMap((s) => s.css.families));
    const declared = new Map<string, string>();
    for (const { at, css } of sheets)
      for (const f of css.fontFaces) {
        const family = f.family.toLowerCase();
        if (!declared.has(family)) declared.set(family, `${at}, line ${f.line}`);
      }
    return overPlaces(
      [...declared].map(([family, at]) =>
        used.has(family)
          ? passed(family, { found: 'used' })
          : failed(family, { found: `no style uses it (${at})` }),
      ),
      {
        expected: 'a style that uses it',
        unit: ['font', 'fonts'],
        none: 'no style sheet that was read declares a font',
      },
    );
  },
  recipe: (_, finding) => ({
    steps: 'Take the @font-face rule out, or switch the font off in the theme’s settings.',
    paste: [
      {
        label: 'Unused',
        text: finding.places
          .filter((p) => p.outcome === 'failed')
          .map((p) => `${p.place}: ${p.found}`)
          .join('\n'),
      },
    ],
  }),
};
