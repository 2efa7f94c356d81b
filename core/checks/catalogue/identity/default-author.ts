import { foldLoosely } from '#core/text/fold';
import { where, type Check } from '#core/checks/kit/check';
import { failed, inapplicable, overPages, passed } from '#core/checks/kit/judgement';

export const defaultAuthor: Check = {
  id: 'identity.default-author',
  section: 'identity',
  title: 'No page is signed by a default person',
  severity: 'minor',
  situations: where('SL'),
  scope: 'page',
  needs: 'pages',
  why: 'A byline “admin” gives away the name to sign in with and that nobody wrote the text.',
  source: 'common practice',
  judge(context) {
    const names = context.profile.defaults?.authors ?? [];
    if (!names.length) return inapplicable('the host profile names no default person');
    const bad = new Set(names.map(foldLoosely));
    return overPages(
      context,
      `nobody named ${names.join(' or ')}`,
      (page) => {
        const stated = [
          ...page.facts.bylines.map((b) => ({ text: b.text, raw: b.raw })),
          ...page.facts.metas
            .filter((m) => m.name === 'author')
            .map((m) => ({ text: m.content, raw: m.raw })),
          ...page.facts.jsonLd
            .flatMap((b) => b.nodes)
            .filter((n) => n.author)
            .map((n) => ({ text: n.author!, raw: `"author": ${JSON.stringify(n.author)}` })),
        ];
        if (!stated.length) return null;
        const hit = stated.find((s) =>
          bad.has(foldLoosely(s.text.replace(/^(?:by|von|par|di|por)\s+/i, ''))),
        );
        return hit
          ? failed(page.url, { found: hit.text, raw: hit.raw })
          : passed(page.url, { found: stated[0]!.text });
      },
      { none: 'no page names an author' },
    );
  },
  recipe: () => ({ steps: 'Give the account its owner’s name, or switch the byline off in the template.' }),
};
