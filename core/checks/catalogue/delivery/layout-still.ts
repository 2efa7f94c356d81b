import { defineCheck } from '#core/checks/kit/check';
import { failed, passed } from '#core/checks/kit/judgement';
import { overRendered } from '#core/checks/kit/rendered';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('delivery.layout-still', {
  'shift-on-screen': '{shift} {screen, select, phone {on a phone} other {on a desktop}}',
});

export const layoutStill = defineCheck({
  id: 'delivery.layout-still',
  title: 'The layout stays still while a page loads',
  fault: 'The layout shifts while a page loads',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['rendered.layoutShift'],
  needs: { pages: true, rendered: true },
  why: 'When things jump while the page loads, people lose their line and tap the wrong button.',
  source: 'Layout Instability API (how it is measured); value common practice',
  parameters: {
    shift: {
      default: 0.1,
      min: 0,
      max: 5,
      unit: '',
      meaning: 'largest shift: the part of the screen that moves, times how far',
    },
  },
  messages: { expected: ({ parameters }) => `a shift below ${parameters.shift}` },
  judge(context) {
    return overRendered(context, (views, page) => {
      const [worst] = [...views].sort((a, b) => (b.layoutShift ?? 0) - (a.layoutShift ?? 0));
      const shift = worst?.layoutShift ?? 0;
      const found = shift.toFixed(2);
      return shift < context.parameters.shift
        ? passed(page.url, { found: verbatim(found) })
        : failed(page.url, {
            found: msg('shift-on-screen', { shift: found, screen: worst!.screen }),
          });
    });
  },
  recipe: () => ({
    steps:
      'Give pictures, films and embedded things their width and height in the markup, keep room for banners and advertisements, and put nothing above what is already shown.',
    paste: [{ label: 'A picture with its size', text: '<img src="…" alt="…" width="1200" height="630">' }],
  }),
});
