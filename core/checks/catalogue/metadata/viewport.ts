import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';

/** What is wrong with a viewport's settings, or nothing. */
function faultOf(content: string): string {
  const settings = new Map(
    content
      .toLowerCase()
      .split(/[,;]/)
      .map((part) => part.split('=').map((x) => x.trim()) as [string, string]),
  );
  if (settings.get('width') !== 'device-width') return content || 'empty';
  // WCAG 1.4.4 asks for 200 %
  const zoom =
    settings.get('user-scalable') !== 'no' &&
    settings.get('user-scalable') !== '0' &&
    Number(settings.get('maximum-scale') ?? 10) >= 2;
  return zoom ? '' : `zoom forbidden: ${content}`;
}

export const viewport = defineCheck({
  id: 'metadata.viewport',
  title: 'Pages fit a phone and may be zoomed',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Without it phones show the desktop page shrunk; with zoom forbidden people who see badly are shut out.',
  source: 'CSS Viewport; WCAG 1.4.4',
  messages: { expected: 'width=device-width, zoom not forbidden' },
  judge(context) {
    const faults = new Map<string, string>();
    return overPages(context, (page) => {
      const meta = page.facts.metas.find((m) => m.name === 'viewport');
      if (!meta) return failed(page.url, { found: 'no viewport' });
      let fault = faults.get(meta.content);
      if (fault === undefined) faults.set(meta.content, (fault = faultOf(meta.content)));
      return fault
        ? failed(page.url, { found: fault, raw: meta.raw })
        : passed(page.url, { found: meta.content, raw: meta.raw });
    });
  },
  recipe: () => ({
    steps: 'Put this into the template’s head.',
    paste: [{ label: 'Tag', text: '<meta name="viewport" content="width=device-width, initial-scale=1">' }],
  }),
});
