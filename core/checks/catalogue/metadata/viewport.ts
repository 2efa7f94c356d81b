import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim, type Message } from '#core/facts/message';

const msg = defineMessages('metadata.viewport', {
  empty: 'empty',
  'zoom-forbidden': 'zoom forbidden: {content}',
  'no-viewport': 'no viewport',
});

/**
 * The settings of a viewport: names and values with an equals sign between; commas, semicolons and white space
 * separate them, and the last of a name counts (CSS Viewport, "parsing algorithm").
 */
function settingsOf(content: string): ReadonlyMap<string, string> {
  const found = content.toLowerCase().matchAll(/([^\s,;=]+)(?:\s*=\s*([^\s,;=]*))?/g);
  return new Map([...found].map((m): [string, string] => [m[1]!, m[2] ?? '']));
}

/** A factor: "yes" is 1, "no" is 0.1, names of lengths the most; what is negative is left aside. */
function scaleOf(value: string | undefined): number {
  if (value === undefined || value.startsWith('device-')) return MOST_SCALE;
  if (value === 'yes') return 1;
  if (value === 'no') return 0.1;
  const number = parseFloat(value);
  return Number.isNaN(number) ? 0.1 : number < 0 ? MOST_SCALE : number;
}
const MOST_SCALE = 10;

/** "no", and numbers between -1 and 1, forbid zooming. */
function isScalable(value: string | undefined): boolean {
  if (value === undefined || value === 'yes' || value.startsWith('device-')) return true;
  const number = parseFloat(value);
  return !Number.isNaN(number) && Math.abs(number) >= 1;
}

/** What is wrong with a viewport's settings, or null. */
function faultOf(content: string): Message | null {
  const settings = settingsOf(content);
  const width = settings.get('width');
  // alone it makes the page as wide as the screen, just as the width would (CSS Viewport)
  const isByScale = width === undefined && Number.parseFloat(settings.get('initial-scale') ?? '') === 1;
  if (width !== 'device-width' && !isByScale) return content ? verbatim(content) : msg('empty');
  // WCAG 1.4.4 asks for 200 %
  const zoom = isScalable(settings.get('user-scalable')) && scaleOf(settings.get('maximum-scale')) >= 2;
  return zoom ? null : msg('zoom-forbidden', { content });
}

export const viewport = defineCheck({
  id: 'metadata.viewport',
  title: 'Viewport fits phones and allows zoom',
  fault: 'Viewport does not fit phones or forbids zoom',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Without it phones show the desktop page shrunk; with zoom forbidden people who see badly are shut out.',
  source: 'CSS Viewport; WCAG 1.4.4',
  messages: { expected: 'width=device-width or initial-scale=1, zoom not forbidden' },
  judge(context) {
    const faults = new Map<string, Message | null>();
    return overPages(context, (page) => {
      const meta = page.facts.metas.find((m) => m.name === 'viewport');
      if (!meta) return failed(page.url, { found: msg('no-viewport') });
      let fault = faults.get(meta.content);
      if (fault === undefined) faults.set(meta.content, (fault = faultOf(meta.content)));
      return fault
        ? failed(page.url, { found: fault, raw: meta.raw })
        : passed(page.url, { found: verbatim(meta.content), raw: meta.raw });
    });
  },
  recipe: () => ({
    steps: 'Put this into the template’s head.',
    paste: [{ label: 'Tag', text: '<meta name="viewport" content="width=device-width, initial-scale=1">' }],
  }),
});
