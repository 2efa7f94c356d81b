import type { PageFacts } from '#core/extract/html';
import { foldSpace } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, passed, unsure } from '#core/checks/kit/judgement';
import { mainView, overRendered } from '#core/checks/kit/rendered';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('delivery.rendered-agrees', {
  'not-rendered-on-desktop': 'not rendered on a desktop',
  part: '{what} “{text}”',
  'no-part': '{what} nothing',
  differs: '{parts}',
  'led-on': 'scripts lead the browser on to {url}',
});

/** What search engines go by, as one rendering of a page has it. */
const SAID: Record<string, (facts: PageFacts) => string> = {
  title: ({ titles }) => foldSpace(titles[0]?.text ?? ''),
  description: ({ metas }) => foldSpace(metas.find((m) => m.name === 'description')?.content ?? ''),
  canonical: ({ links }) =>
    links
      .filter((l) => l.rel.includes('canonical'))
      .map((l) => l.href)
      .join(' '),
  robots: ({ metas }) =>
    metas
      .filter((m) => m.name === 'robots')
      .map((m) => foldSpace(m.content.toLowerCase()))
      .join(', '),
};

const quoted = (text: string): string => (text ? `“${text}”` : 'nothing');

export const renderedAgrees = defineCheck({
  id: 'delivery.rendered-agrees',
  title: 'Rendered and plain page say the same',
  fault: 'Rendered and plain page differ',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['rendered.facts'],
  needs: { pages: true, rendered: true },
  why: 'Readers that run no scripts list and share what the plain page says, and the others what scripts made of it.',
  source: 'common practice',
  messages: {
    expected: 'title, description, canonical and robots are the same before and after scripts ran',
  },
  judge(context) {
    return overRendered(context, (views, page) => {
      const view = mainView(views);
      if (!view?.facts) return unsure(page.url, msg('not-rendered-on-desktop'));
      const plain = page.evidence.facts!;
      if (new URL(view.url).pathname !== new URL(page.url).pathname)
        return unsure(page.url, msg('led-on', { url: view.url }));
      const differing = Object.entries(SAID).flatMap(([what, of]) => {
        const [before, after] = [of(plain), of(view.facts!)];
        return before === after ? [] : [{ what, before, after }];
      });
      if (!differing.length) return passed(page.url);
      return failed(page.url, {
        expected: differing.map(({ what, before }) => `${what} ${quoted(before)}`).join(', '),
        found: msg('differs', {
          parts: differing.map(({ what, after }) => msg(after ? 'part' : 'no-part', { what, text: after })),
        }),
        raw: differing
          .map(({ what, before, after }) => `${what}\n  plain: ${before}\n  rendered: ${after}`)
          .join('\n'),
      });
    });
  },
  recipe: () => ({
    steps:
      'Let the server write these tags into the page as it sends it, and let no script (or tag manager) change them afterwards.',
  }),
});
