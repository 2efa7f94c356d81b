import { SCREENS, type RenderedView } from '#core/facts/rendered';
import type { PlaceDetails } from '#core/facts/place-result';
import { defineCheck } from '#core/checks/kit/check';
import { failed, passed, unsure } from '#core/checks/kit/judgement';
import { overRendered } from '#core/checks/kit/rendered';
import { defineMessages } from '#core/text/messages';
import { restsOnCheck } from '#core/text/common-messages';

const msg = defineMessages('delivery.phone-fits', {
  'wider-than-screen':
    '{sideways} px wider than the screen{hasElement, select, yes {: {element} reaches to {right} px} other {}}',
  'small-letters':
    '{count, plural, one {{count} letter} other {{count} letters}} below {least} px, the smallest at {px} px: “{text}”',
  'not-rendered-on-phone': 'not rendered on a phone',
  'laid-out-for-another-screen': 'the page is laid out for another screen',
});

const TOO_WIDE = msg('wider-than-screen').code;

type Layout = NonNullable<RenderedView['layout']>;

/** What lies wider than the screen, in words; undefined where nothing does. */
function tooWide({ sideways, wide }: Layout, most: number): PlaceDetails | undefined {
  if (sideways <= most) return undefined;
  const [widest] = wide;
  return {
    found: msg('wider-than-screen', {
      sideways,
      hasElement: widest ? 'yes' : 'no',
      element: widest?.element,
      right: widest?.right,
    }),
    raw: wide.map((w) => `${w.element} to ${w.right} px`).join('\n') || undefined,
  };
}

/** What is written too small, in words; undefined where nothing is. */
function tooSmall({ small }: Layout, least: number, letters: number): PlaceDetails | undefined {
  const under = small.filter((s) => s.px < least);
  const count = under.reduce((sum, s) => sum + s.letters, 0);
  if (count <= letters) return undefined;
  return {
    found: msg('small-letters', { count, least, px: under[0]!.px, text: under[0]!.text }),
    raw: under.map((s) => `${s.px} px ${s.element}: ${s.text}`).join('\n'),
  };
}

export const phoneFits = defineCheck({
  id: 'delivery.phone-fits',
  title: 'Pages fit a phone’s screen and can be read there',
  fault: 'A page is too wide or its text too small on a phone',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['rendered.layout'],
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
      if (!layout) return unsure(page.url, msg('not-rendered-on-phone'));
      if (!page.facts.metas.some((m) => m.name === 'viewport'))
        return unsure(page.url, restsOnCheck('metadata.viewport', msg('laid-out-for-another-screen')));
      const fault = tooWide(layout, sideways) ?? tooSmall(layout, pixels, letters);
      return fault ? failed(page.url, fault) : passed(page.url);
    });
  },
  recipe: (_, finding) => ({
    steps:
      'Give what sticks out a width that gives way (max-width: 100 %), let tables and code scroll within their own box, and set small text larger.',
    paste: finding.places.some((p) => p.code === TOO_WIDE)
      ? [
          {
            label: 'Style sheet',
            text: 'img, video, iframe, table {\n  max-width: 100%;\n  height: auto;\n}',
          },
        ]
      : [],
  }),
});
