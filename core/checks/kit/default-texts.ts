/** Texts that show through where a page has none of its own: whose they are. */
import { foldLoosely, foldSpace } from '#core/text/fold';
import type { Brief } from '#core/facts/brief';
import type { HostProfile } from '#core/facts/host-profile';
import type { ReadPage } from '#core/checks/view/read-page';
import type { SiteView } from '#core/checks/view/site-view';
import type { Message } from '#core/facts/message';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('default-texts', {
  'host-default': 'the host’s default',
  'site-default': 'the site’s default',
  'home-page': 'the home page’s',
  'name-alone': 'the site’s name alone',
  tagline: 'the site’s tagline',
});

/** Whose a default is. */
export type DefaultOf = 'host' | 'site';
export interface FoundDefault {
  of: DefaultOf;
  /** Whose, to stand behind “title …,”. */
  words: Message;
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
    { said: string; home: string; alone: string; aloneWords: Message }
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
        aloneWords: msg('name-alone'),
      },
      description: {
        said: foldLoosely(brief.defaultDescription ?? ''),
        home: ofHome('description'),
        alone: foldLoosely(brief.tagline ?? ''),
        aloneWords: msg('tagline'),
      },
    };
  }

  /** Whose text stands there, if not the page's own. */
  behind(page: ReadPage, field: TextField): FoundDefault | undefined {
    const text = textOf(page, field);
    if (!text) return undefined;
    const loose = foldLoosely(text);
    if (this.hosts.has(loose)) return { of: 'host', words: msg('host-default') };
    const { said, home, alone, aloneWords } = this.texts[field];
    // what stands for the whole site may stand on its home page
    if (page === this.home) return undefined;
    if (said && loose === said) return { of: 'site', words: msg('site-default') };
    if (text === home) return { of: 'site', words: msg('home-page') };
    return alone && loose === alone ? { of: 'site', words: aloneWords } : undefined;
  }
}
