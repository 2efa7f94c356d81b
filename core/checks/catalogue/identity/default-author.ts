import { foldLoosely } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';

const msg = defineMessages('identity.default-author', {
  'no-default-known': 'the host profile names no default person',
});

export const defaultAuthor = defineCheck({
  id: 'identity.default-author',
  title: 'Author is not the host’s default person',
  fault: 'Author is the host’s default person',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  facts: ['bylines', 'jsonLd'],
  needs: { pages: true },
  why: 'A byline “admin” gives away the name to sign in with and that nobody wrote the text.',
  source: 'common practice',
  messages: { none: 'no page names an author' },
  judge(context) {
    const names = context.profile.defaults?.authors ?? [];
    if (!names.length) return inapplicable(msg('no-default-known'));
    const bad = new Set(names.map(foldLoosely));
    return overPages(
      context,
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
          ? failed(page.url, { found: verbatim(hit.text), raw: hit.raw })
          : passed(page.url, { found: verbatim(stated[0]!.text) });
      },
      { expected: `nobody named ${names.join(' or ')}` },
    );
  },
  recipe: () => ({ steps: 'Give the account its owner’s name, or switch the byline off in the template.' }),
});
