import { foldSpace } from '#core/text/fold';
import { canonicalRecipe } from './canonical-recipe';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('indexing.canonical-own', {
  'copy-home-page': 'a copy of the home page',
  'home-page': 'the home page: {canonical}',
});

export const canonicalOwn = defineCheck({
  id: 'indexing.canonical-own',
  title: 'Canonicals do not all name the home page',
  fault: 'Canonicals all name the home page',
  severity: 'major',
  situations: ['live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A template with the home page’s canonical in it takes every other page out of the listings.',
  source: 'RFC 6596 3',
  messages: { expected: 'a canonical of its own', none: 'no other page has a canonical' },
  judge(context) {
    const { view } = context;
    const home = view.home;
    return overPages(context, (page) => {
      if (page === home) return null;
      const canonical = page.canonical;
      if (!canonical || !home) return null;
      const link = page.canonicals[0]!;
      if (canonical !== home.url) return passed(page.url, { found: verbatim(canonical) });
      return foldSpace(page.facts.text) === foldSpace(home.facts.text)
        ? passed(page.url, { found: msg('copy-home-page') })
        : failed(page.url, { found: msg('home-page', { canonical }), raw: link.raw });
    });
  },
  recipe: ({ view }, finding) => ({
    steps: 'Take the fixed address out of the template and let it put in each page’s own.',
    paste: canonicalRecipe(view, finding),
  }),
});
