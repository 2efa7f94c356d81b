import { SCREENS, type RenderedView } from '#core/facts/rendered';
import type { PlaceDetails } from '#core/facts/place-result';
import { defineCheck } from '#core/checks/kit/check';
import { failed, passed, unsure } from '#core/checks/kit/judgement';
import { overRendered } from '#core/checks/kit/rendered';
import { quantity } from '#core/text/quantity';

type Layout = NonNullable<RenderedView['layout']>;

/** What lies wider than the screen, in words; undefined where nothing does. */
function tooWide({ sideways, wide }: Layout, most: number): PlaceDetails | undefined {
  if (sideways <= most) return undefined;
  const by = wide[0] ? `: ${wide[0].element} reaches to ${wide[0].right} px` : '';
  return {
    found: `${sideways} px wider than the screen${by}`,
    raw: wide.map((w) => `${w.element} to ${w.right} px`).join('\n') || undefined,
  };
}

/** What is written too small, in words; undefined where nothing is. */
function tooSmall({ small }: Layout, least: number, letters: number): PlaceDetails | undefined {
  const under = small.filter((s) => s.px < least);
  const count = under.reduce((sum, s) => sum + s.letters, 0);
  if (count <= letters) return undefined;
  return {
    found: `${quantity(count, 'letter')} below ${least} px, the smallest at ${under[0]!.px} px: “${under[0]!.text}”`,
    raw: under.map((s) => `${s.px} px ${s.element}: ${s.text}`).join('\n'),
  };
}

export const phoneFits = defineCheck({
  id: 'delivery.phone-fits',
  title: 'Pages fit a phone’s screen and can be read there',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true, rendered: true },
  why: 'Half of the visitors hold a phone: what sticks out makes the page slide sideways, what is tiny is not read.',
  source: 'WCAG 2.2 SC 1.4.10; values common practice',
  parameters: {
    pixels: { default: 12, min: 6, max: 24, unit: 'px', meaning: 'smallest text' },
    letters: {
      default: 20,
      min: 0,
      max: 1000,
      unit: 'letters',
      meaning: 'so many on a page may be smaller',
    },
    sideways: {
      default: 2,
      min: 0,
      max: 100,
      unit: 'px',
      meaning: 'as far may a page be pushed sideways',
    },
  },
  messages: {
    expected: ({ parameters }) =>
      `nothing wider than ${SCREENS.phone.width} px, text of at least ${parameters.pixels} px`,
  },
  judge(context) {
    const { pixels, letters, sideways } = context.parameters;
    return overRendered(context, (views, page) => {
      const layout = views.find((v) => v.screen === 'phone')?.layout;
      if (!layout) return unsure(page.url, 'not rendered on a phone');
      if (!page.facts.metas.some((m) => m.name === 'viewport'))
        return unsure(page.url, 'rests on metadata.viewport: the page is laid out for another screen');
      const fault = tooWide(layout, sideways) ?? tooSmall(layout, pixels, letters);
      return fault ? failed(page.url, fault) : passed(page.url);
    });
  },
  recipe: (_, finding) => ({
    steps:
      'Give what sticks out a width that gives way (max-width: 100 %), let tables and code scroll within their own box, and set small text larger.',
    paste: finding.places.some((p) => p.outcome === 'failed' && p.found?.includes('wider than'))
      ? [
          {
            label: 'Style sheet',
            text: 'img, video, iframe, table {\n  max-width: 100%;\n  height: auto;\n}',
          },
        ]
      : [],
  }),
});
