/** Texts that show through where a page has none of its own: whose they are. */
import { foldLoosely, foldSpace } from '#core/text/fold';
import type { Brief } from '#core/facts/brief';
import type { HostProfile } from '#core/facts/host-profile';
import type { ReadPage } from '#core/checks/view/read-page';
import type { SiteView } from '#core/checks/view/site-view';

/** Whose a default is. */
export type DefaultOf = 'host' | 'site';
export interface FoundDefault {
  of: DefaultOf;
  /** In words, to stand behind “title …,”. */
  words: string;
}
export type TextField = 'title' | 'description';

/** The text of a page's own tag; undefined where there is none, or an empty one. */
export const textOf = (page: ReadPage, field: TextField): string | undefined =>
  foldSpace((field === 'title' ? page.facts.titles[0]?.text : page.description?.content) ?? '') || undefined;

export class DefaultTexts {
  private readonly hosts: ReadonlySet<string>;
  private readonly home: ReadPage | undefined;
  private readonly texts: Record<
    TextField,
    { said: string; home: string; alone: string; aloneWords: string }
  >;

  constructor(view: Pick<SiteView, 'home'>, brief: Brief, profile: HostProfile) {
    const { titles = [], taglines = [], texts = [] } = profile.defaults ?? {};
    this.hosts = new Set([...titles, ...taglines, ...texts].map(foldLoosely).filter(Boolean));
    this.home = view.home;
    const ofHome = (field: TextField): string => (view.home && textOf(view.home, field)) ?? '';
    this.texts = {
      title: {
        said: foldLoosely(brief.defaultTitle ?? ''),
        home: ofHome('title'),
        alone: foldLoosely(brief.name ?? ''),
        aloneWords: 'the site’s name alone',
      },
      description: {
        said: foldLoosely(brief.defaultDescription ?? ''),
        home: ofHome('description'),
        alone: foldLoosely(brief.tagline ?? ''),
        aloneWords: 'the site’s tagline',
      },
    };
  }

  /** Whose text stands there, if not the page's own. */
  behind(page: ReadPage, field: TextField): FoundDefault | undefined {
    const text = textOf(page, field);
    if (!text) return undefined;
    const loose = foldLoosely(text);
    if (this.hosts.has(loose)) return { of: 'host', words: 'the host’s default' };
    const { said, home, alone, aloneWords } = this.texts[field];
    // what stands for the whole site may stand on its home page
    if (page === this.home) return undefined;
    if (said && loose === said) return { of: 'site', words: 'the site’s default' };
    if (text === home) return { of: 'site', words: 'the home page’s' };
    return alone && loose === alone ? { of: 'site', words: aloneWords } : undefined;
  }
}
