import type { PlaceResult } from '#core/facts/finding';
import { foldLoosely, foldSpace } from '#core/text/fold';
import type { ReadPage } from '#core/checks/view/read-page';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';

/** A text of a page as it stands and as defaults are compared with it. */
interface PageText {
  text: string;
  loose: string;
}
const pageText = (given: string | undefined): PageText => {
  const text = foldSpace(given ?? '');
  return { text, loose: foldLoosely(text) };
};

/** What shows through where a page has nothing of its own. */
interface Defaults {
  hosts: ReadonlySet<string>;
  home: ReadPage | undefined;
  homeTitle: string;
  homeDescription: string;
  name: string;
  tagline: string;
}

function defaultsOf({ view, brief, profile }: CheckContext): Defaults {
  const { titles = [], taglines = [], texts = [] } = profile.defaults ?? {};
  return {
    hosts: new Set([...titles, ...taglines, ...texts].map(foldLoosely)),
    home: view.home,
    homeTitle: foldSpace(view.home?.facts.titles[0]?.text ?? ''),
    homeDescription: foldSpace(view.home?.description?.content ?? ''),
    name: foldLoosely(brief.name ?? ''),
    tagline: foldLoosely(brief.tagline ?? ''),
  };
}

/** Whose text a page's title is, if not its own. */
function titleFrom({ text, loose }: PageText, page: ReadPage, d: Defaults): string | undefined {
  if (d.hosts.has(loose)) return 'the host’s default';
  if (page === d.home || !text) return undefined;
  if (text === d.homeTitle) return 'the home page’s';
  return loose === d.name ? 'the site’s name alone' : undefined;
}

/** Whose text a page's description is, if not its own. */
function descriptionFrom({ text, loose }: PageText, page: ReadPage, d: Defaults): string | undefined {
  if (!text) return undefined;
  if (d.hosts.has(loose)) return 'the host’s default';
  if (page === d.home) return undefined;
  if (text === d.homeDescription) return 'the home page’s';
  return d.tagline && loose === d.tagline ? 'the site’s tagline' : undefined;
}

function judgePage(page: ReadPage, defaults: Defaults): PlaceResult | null {
  const title = pageText(page.facts.titles[0]?.text);
  const description = pageText(page.description?.content);
  if (!title.text && !description.text) return null;
  const tag = page.description ? `\n${page.description.raw}` : '';
  const raw = `${page.facts.titles[0]?.raw ?? ''}${title.text}${tag}`;
  const ofTitle = titleFrom(title, page, defaults);
  if (ofTitle) return failed(page.url, { found: `title “${title.text}”, ${ofTitle}`, raw });
  const ofDescription = descriptionFrom(description, page, defaults);
  if (ofDescription)
    return failed(page.url, { found: `description “${description.text}”, ${ofDescription}`, raw });
  return passed(page.url, { found: title.text });
}

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
    const defaults = defaultsOf(context);
    return overPages(context, (page) => judgePage(page, defaults));
  },
  recipe: () => ({
    steps:
      'Fill in title and description of these pages themselves; as long as the fields are empty, the site’s settings show through.',
  }),
});
