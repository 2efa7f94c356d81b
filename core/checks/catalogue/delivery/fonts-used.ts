import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('delivery.fonts-used', {
  unused: 'no style uses it ({at})',
});

export const fontsUsed = defineCheck({
  id: 'delivery.fonts-used',
  title: 'Every @font-face is used',
  fault: 'An @font-face is unused',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'font',
  facts: ['assets', 'css'],
  needs: { pages: true },
  why: 'A theme’s leftover fonts are loaded by some browsers all the same, and need a licence.',
  source: 'common practice',
  messages: { expected: 'a style that uses it', none: 'no style sheet that was read declares a font' },
  judge(context) {
    const { evidence, view } = context;
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
      context,
      [...declared].map(([family, at]) =>
        used.has(family)
          ? passed(family, { found: commonMessage('used') })
          : failed(family, { found: msg('unused', { at }) }),
      ),
    );
  },
  recipe: (_, finding) => ({
    steps: 'Take the @font-face rule out, or switch the font off in the theme’s settings.',
    paste: [
      {
        label: 'Unused',
        text: failedPlaces(finding)
          .map((p) => `${p.place}: ${p.found}`)
          .join('\n'),
      },
    ],
  }),
});
