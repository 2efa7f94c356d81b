/** Where what a page says of itself comes from: its own tag, the site’s default, or the host’s. */
import { DefaultTexts, textOf } from '#core/checks/kit/default-texts';
import type { ReadPage } from '#core/checks/view/read-page';
import type { SiteView } from '#core/checks/view/site-view';
import { foldLoosely, foldSpace } from '#core/text/fold';
import { formatMessage } from '#core/text/messages';

const ORIGIN_FIELDS = [
  'title',
  'description',
  'canonical',
  'robots',
  'og:title',
  'og:description',
  'og:image',
  'og:url',
  'og:type',
  'og:site_name',
] as const;
export type OriginField = (typeof ORIGIN_FIELDS)[number];

type OriginOf = 'page' | 'site' | 'host' | 'nothing';

export interface Origin {
  field: OriginField;
  /** What stands there; empty where nothing does. */
  value: string;
  of: OriginOf;
  /** `said`: the brief or the host profile says so; `likely`: told from what other pages carry. */
  sure: 'said' | 'likely';
  why: string;
  /** What the others would give, where that is known. */
  others: { of: Exclude<OriginOf, 'nothing'>; value: string }[];
}

/** A text on so many pages, and on such a part of them, comes from one setting. Common practice. */
const SHARED_PAGES = 3;
const SHARED_PART = 0.2;

function valueOf(page: ReadPage, field: OriginField): string {
  if (field === 'title' || field === 'description') return textOf(page, field) ?? '';
  if (field === 'canonical') return page.canonicals[0]?.href ?? '';
  if (field === 'robots') return page.statements.map((s) => foldSpace(s.text)).join('; ');
  return foldSpace(page.openGraph(field)?.content ?? '');
}

/** The value that most pages carry, where so many do that it comes from one setting. */
interface Common {
  value: string;
  pages: number;
  all: number;
}

/** What is asked of a site once, and then of each of its pages. */
export class Origins {
  private readonly defaults: DefaultTexts;
  private readonly common = new Map<OriginField, Map<string, Common>>();

  constructor(private readonly view: SiteView) {
    this.defaults = new DefaultTexts(view, view.brief, view.profile);
  }

  /** How many pages carry each value of a field, for those that many do. */
  private commonOf(field: OriginField): Map<string, Common> {
    let known = this.common.get(field);
    if (known) return known;
    const counts = new Map<string, Common>();
    let all = 0;
    for (const page of this.view.pages) {
      const value = valueOf(page, field);
      if (!value) continue;
      all++;
      const key = foldLoosely(value);
      const found = counts.get(key);
      if (found) found.pages++;
      else counts.set(key, { value, pages: 1, all: 0 });
    }
    known = new Map(
      [...counts]
        .filter(([, { pages }]) => pages >= SHARED_PAGES && pages >= all * SHARED_PART)
        .map(([key, common]) => [key, { ...common, all }]),
    );
    this.common.set(field, known);
    return known;
  }

  /** The site's default of a field: what the brief says, else what most pages share. */
  private siteDefault(field: OriginField): { value: string; why: string; sure: Origin['sure'] } | undefined {
    const { brief } = this.view;
    const said =
      field === 'title' || field === 'og:title'
        ? brief.defaultTitle
        : field === 'description' || field === 'og:description'
          ? brief.defaultDescription
          : undefined;
    if (said) return { value: said, why: 'the brief says that it is the site’s default', sure: 'said' };
    const [most] = [...this.commonOf(field).values()].sort((a, b) => b.pages - a.pages);
    return most && { value: most.value, why: `${most.pages} of ${most.all} pages carry it`, sure: 'likely' };
  }

  private hostDefaults(field: OriginField): readonly string[] {
    const { titles = [], taglines = [], texts = [] } = this.view.profile.defaults ?? {};
    if (field === 'title' || field === 'og:title') return titles;
    return field === 'description' || field === 'og:description' ? [...taglines, ...texts] : [];
  }

  /** Which of them the value of a page is. */
  private source(page: ReadPage, field: OriginField, value: string): Pick<Origin, 'of' | 'sure' | 'why'> {
    if (!value) return { of: 'nothing', sure: 'said', why: 'no tag, or an empty one' };
    const loose = foldLoosely(value);
    if (this.hostDefaults(field).some((d) => foldLoosely(d) === loose))
      return { of: 'host', sure: 'said', why: 'the host profile lists it as a default' };
    if (field === 'title' || field === 'description') {
      const behind = this.defaults.behind(page, field);
      if (behind) return { of: behind.of, sure: 'said', why: `it is ${formatMessage(behind.words)}` };
    }
    const site = this.siteDefault(field);
    if (site && foldLoosely(site.value) === loose) return { of: 'site', sure: site.sure, why: site.why };
    const shared = this.commonOf(field).get(loose);
    if (shared) return { of: 'site', sure: 'likely', why: `${shared.pages} of ${shared.all} pages carry it` };
    return { of: 'page', sure: 'said', why: 'few other pages carry it' };
  }

  /** Where each thing that a page says of itself comes from. */
  of(page: ReadPage): Origin[] {
    return ORIGIN_FIELDS.map((field) => {
      const value = valueOf(page, field);
      const source = this.source(page, field, value);
      const site = this.siteDefault(field)?.value;
      const [host] = this.hostDefaults(field);
      const others: Origin['others'] = [];
      if (site && source.of !== 'site') others.push({ of: 'site', value: site });
      if (host && source.of !== 'host') others.push({ of: 'host', value: host });
      return { field, value, ...source, others };
    });
  }
}
