import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { FOLDED_DEFAULTS } from '#core/checks/kit/page-titles';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('sharing.text-own', {
  missing: 'no {property}',
  says: '{property} is “{text}”',
});

export const textOwn = defineCheck({
  id: 'sharing.text-own',
  title: 'og:title and og:description are no default',
  fault: 'og:title or og:description is missing or a default',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A preview that says “Home” or the template’s slogan gives nobody a reason to open the link.',
  source: 'common practice',
  messages: { expected: 'og:title and og:description, neither empty nor a default' },
  judge(context) {
    const defaults = new Set([
      ...FOLDED_DEFAULTS,
      ...[
        ...(context.profile.defaults?.titles ?? []),
        ...(context.profile.defaults?.taglines ?? []),
        ...(context.profile.defaults?.texts ?? []),
      ].map(foldLoosely),
    ]);
    return overPages(context, (page) => {
      for (const property of ['og:title', 'og:description']) {
        const meta = page.openGraph(property);
        const text = meta?.content.trim() ?? '';
        if (!text) return failed(page.url, { found: msg('missing', { property }), raw: meta?.raw });
        if (defaults.has(foldLoosely(text)))
          return failed(page.url, { found: msg('says', { property, text }), raw: meta!.raw });
      }
      return passed(page.url, { found: verbatim(page.openGraph('og:title')!.content) });
    });
  },
  recipe: () => ({
    steps:
      'Fill in the share title and description of each page; the page’s own title and description will do.',
  }),
});
