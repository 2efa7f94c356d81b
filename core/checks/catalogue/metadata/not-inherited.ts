import { foldLoosely, foldSpace } from '#core/text/fold';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';

export const notInherited = defineCheck({
  id: 'metadata.not-inherited',
  title: 'Title and description are the page’s own',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A default that shows through says the same on every page and is easy to overlook, since something is there.',
  source: 'common practice',
  messages: {
    expected: 'neither the site’s nor the host’s default',
    none: 'no page has a title or a description',
  },
  judge(context) {
    const { view, brief, profile } = context;
    const home = view.home;
    const homeTitle = foldSpace(home?.facts.titles[0]?.text ?? ''),
      homeText = foldSpace(home?.description?.content ?? '');
    const hosts = new Set(
      [
        ...(profile.defaults?.titles ?? []),
        ...(profile.defaults?.taglines ?? []),
        ...(profile.defaults?.texts ?? []),
      ].map(foldLoosely),
    );
    const name = foldLoosely(brief.name ?? ''),
      tagline = foldLoosely(brief.tagline ?? '');
    return overPages(context, (page) => {
      const title = foldSpace(page.facts.titles[0]?.text ?? ''),
        meta = page.description;
      const text = foldSpace(meta?.content ?? '');
      if (!title && !text) return null;
      const raw = `${page.facts.titles[0]?.raw ?? ''}${title}${meta ? `\n${meta.raw}` : ''}`;
      const looseTitle = foldLoosely(title),
        looseText = foldLoosely(text);
      if (hosts.has(looseTitle))
        return failed(page.url, { found: `title “${title}”, the host’s default`, raw });
      if (text && hosts.has(looseText))
        return failed(page.url, { found: `description “${text}”, the host’s default`, raw });
      if (page === home) return passed(page.url, { found: title });
      if (title && (title === homeTitle || looseTitle === name))
        return failed(page.url, {
          found: `title “${title}”, ${title === homeTitle ? 'the home page’s' : 'the site’s name alone'}`,
          raw,
        });
      if (text && (text === homeText || (tagline && looseText === tagline)))
        return failed(page.url, {
          found: `description “${text}”, ${text === homeText ? 'the home page’s' : 'the site’s tagline'}`,
          raw,
        });
      return passed(page.url, { found: title });
    });
  },
  recipe: () => ({
    steps:
      'Fill in title and description of these pages themselves; as long as the fields are empty, the site’s settings show through.',
  }),
});
