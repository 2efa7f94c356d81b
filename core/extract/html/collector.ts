/** Collects facts about a page while one walk goes over its tree. */
import type { DefaultTreeAdapterTypes as T } from 'parse5';
import { foldSpace } from '#core/text/fold';
import { accessibleName, LabelBook, namingText } from '#core/extract/accessible-name';
import { resolveAddress } from '#core/extract/address';
import { readCss, readStyleAttribute } from '#core/extract/css';
import { hiddenIn } from '#core/extract/hidden-tags';
import { attr, startOf, textOf, type Placed } from '#core/extract/html-tree';
import type { CssFacts } from '#core/extract/css';
import type { Anchor, At, FormFacts, PageFacts, Resource, Spot } from '#core/extract/page-facts';

const RAW_CAP = 400;
const TEXT_CAP = 12_000;
const LIST_CAP = 3_000;
/** Of what stands on a page by the hundred, less is kept. */
const SHORT_RAW = 200;
const HIDDEN_CAP = 50;
const CODE_CAP = 4000;
const BYLINE = /(?:^|[\s_-])(?:byline|author|written-by)(?:$|[\s_-])/i;

const namesAuthor = (name: string, value: string): boolean =>
  (name === 'itemprop' && value === 'author') || (name === 'rel' && /\bauthor\b/i.test(value));

/** The level that a heading by its role has: what aria-level says, 2 where it says none (WAI-ARIA 1.2, heading). */
export function levelOf(el: T.Element): number {
  const said = Number(attr(el, 'aria-level'));
  if (Number.isInteger(said) && said > 0) return said;
  return Number(/^h([1-6])$/.exec(el.tagName)?.[1] ?? 2);
}

export class Collector {
  readonly facts: PageFacts = {
    lang: null,
    titles: [],
    metas: [],
    links: [],
    scripts: [],
    headings: [],
    anchors: [],
    images: [],
    forms: [],
    resources: [],
    jsonLd: [],
    bylines: [],
    unnamed: [],
    hidden: [],
    text: '',
    textLength: 0,
    code: '',
    marks: [],
    cut: [],
  };
  private readonly text: string[] = [];
  private readonly marks = new Set<string>();
  private readonly anchorsSeen = new Set<string>();
  form: FormFacts | null = null;

  constructor(
    private readonly source: string,
    readonly pageUrl: string,
  ) {}

  /**
   * The address by the URL standard against the page's base, without its fragment; undefined when it is none.
   */
  resolve(href: string): string | undefined {
    let url = this.resolved.get(href);
    if (url === undefined)
      this.resolved.set(href, (url = resolveAddress(href, this.facts.base ?? this.pageUrl) ?? null));
    return url ?? undefined;
  }
  resolved = new Map<string, string | null>();

  /**
   * Counts lines up to a place in the source. Facts come in rising order mostly, so the count goes on from
   * the last one.
   */
  private count(offset: number): void {
    const c = this.counted;
    if (offset < c.start) {
      c.line = 1;
      c.start = 0;
    }
    for (
      let next = this.source.indexOf('\n', c.start);
      next >= 0 && next < offset;
      next = this.source.indexOf('\n', c.start)
    ) {
      c.line++;
      c.start = next + 1;
    }
  }
  private readonly counted = { line: 1, start: 0 };

  /** Fills in where an element stands; writing the fields is many times quicker than spreading them. */
  spot<F extends Spot>(fact: F, el: T.Element, cap = RAW_CAP): F {
    const start = startOf(el, this.source);
    if (start < 0) {
      fact.raw = `<${el.tagName}>`;
      return fact;
    }
    fact.raw = this.source.slice(start, Math.min((el as Placed).end + 1, start + cap));
    this.count(start);
    fact.line = this.counted.line;
    fact.column = start - this.counted.start + 1;
    return fact;
  }

  at<F extends At>(fact: F, el: T.Element, inHead: boolean): F {
    fact.where = inHead ? 'head' : 'body';
    return this.spot(fact, el);
  }

  /** Tags inside a comment, template or noscript: they look as if they counted. */
  hide(text: string, inside: 'comment' | 'template' | 'noscript', el?: T.Element): void {
    if (this.facts.hidden.length >= HIDDEN_CAP) return;
    const from = el
      ? (el as Placed).end + 1
      : this.source.indexOf(`<!--${text.slice(0, 200)}`, this.commentsSeen);
    if (!el && from >= 0) this.commentsSeen = from + 4;
    for (const { tag, raw, offset } of hiddenIn(text)) {
      const start = Math.max(0, from) + (el ? 0 : 4) + offset;
      this.count(start);
      if (this.facts.hidden.length < HIDDEN_CAP)
        this.facts.hidden.push({
          tag,
          inside,
          raw,
          line: this.counted.line,
          column: start - this.counted.start + 1,
        });
    }
  }
  private commentsSeen = 0;

  readonly labels = new LabelBook();
  /** The element that ended the head, where its end was not written. */
  headEndedBy?: T.Element;

  full<V>(list: V[], name: string): boolean {
    if (list.length < LIST_CAP) return false;
    if (!this.facts.cut.includes(name)) this.facts.cut.push(name);
    return true;
  }

  addText(value: string): void {
    if (this.facts.textLength <= TEXT_CAP * 4) {
      this.text.push(value);
      this.facts.textLength += value.length;
    }
  }
  gap(): void {
    this.text.push(' ');
  }

  resource(kind: Resource['kind'], href: string | undefined, el: T.Element): void {
    if (!href || this.full(this.facts.resources, 'resources')) return;
    if (href.startsWith('data:')) return;
    const url = this.resolve(href.trim());
    if (url && !url.startsWith('data:'))
      this.facts.resources.push(
        this.spot({ raw: '', line: 0, column: 0, kind, url: url.slice(0, 2000) }, el),
      );
  }

  srcset(value: string | undefined, el: T.Element): void {
    if (!value) return;
    for (const part of value.slice(0, 8000).split(/,\s+|,(?=https?:)/))
      this.resource('srcset', part.trim().split(/\s+/)[0], el);
  }

  css(text: string, el: T.Element): void {
    if (!/font|url\(|@import/i.test(text)) return;
    const { fontFaces, families, urls, imports = [] } = readCss(text);
    const fonts = new Set(fontFaces.flatMap((f) => f.sources));
    for (const url of urls) {
      const kind = imports.includes(url) ? 'style' : fonts.has(url) ? 'font' : 'css';
      this.resource(kind, url, el);
    }
    this.fonts(fontFaces, families);
  }

  private fonts(fontFaces: CssFacts['fontFaces'], families: readonly string[]): void {
    if (!fontFaces.length && !families.length) return;
    const own = (this.facts.css ??= { fontFaces: [], families: [] });
    own.fontFaces.push(...fontFaces);
    for (const family of families)
      if (!own.families.includes(family) && own.families.length < 300) own.families.push(family);
  }

  private styleAttribute(style: string, el: T.Element): void {
    if (!/font|url\(/i.test(style)) return;
    const { families, urls } = readStyleAttribute(style);
    for (const url of urls) this.resource('css', url, el);
    this.fonts([], families);
  }

  /** Remembers ids and classes; each class list is split once, however often it comes. */
  private mark(name: string, value: string): void {
    if (this.marks.size >= 500 || !value) return;
    if (name === 'id') {
      this.marks.add('#' + value.slice(0, 80));
      return;
    }
    for (const c of value.slice(0, 400).split(/\s+/)) if (c) this.marks.add('.' + c.slice(0, 80));
  }

  /** Whether a class list says that this is a byline. Lists come again and again, so each is read once. */
  private classList(value: string): boolean {
    let byline = this.classLists.get(value);
    if (byline === undefined) {
      this.mark('class', value);
      this.classLists.set(value, (byline = value.length < 200 && BYLINE.test(value)));
    }
    return byline;
  }
  private readonly classLists = new Map<string, boolean>();

  /** Reads what any element may carry: ids, classes, and whether it names an author. */
  attributes(el: T.Element): void {
    const { attrs } = el;
    for (let i = 0; i < attrs.length; i++) {
      const { name, value } = attrs[i]!;
      if (name === 'class') {
        if (this.classList(value)) this.byline(el);
      } else if (name === 'id') {
        this.mark(name, value);
        this.labels.see(value, el);
      } else if (name === 'style') this.styleAttribute(value, el);
      else if (name === 'role') this.role(value, el);
      else if (namesAuthor(name, value)) this.byline(el);
    }
  }

  private role(value: string, el: T.Element): void {
    if (value.trim().toLowerCase() === 'heading' && !/^h[1-6]$/.test(el.tagName))
      this.heading(el, levelOf(el));
  }

  heading(el: T.Element, level: number): void {
    if (this.full(this.facts.headings, 'headings')) return;
    const text = (foldSpace(textOf(el)) || foldSpace(namingText(el))).slice(0, 300);
    this.facts.headings.push(this.spot({ raw: '', line: 0, column: 0, level, text }, el, SHORT_RAW));
  }

  /** Text that is shown as code: what stands in brackets there is for readers to fill in. */
  code(el: T.Element): void {
    const { code = '' } = this.facts;
    if (code.length < CODE_CAP)
      this.facts.code = `${code} ${foldSpace(textOf(el))}`.trim().slice(0, CODE_CAP);
  }

  private byline(el: T.Element): void {
    const text = foldSpace(textOf(el)).slice(0, 120);
    // containers of a whole article carry such classes too
    if (
      text &&
      textOf(el).length < 300 &&
      this.facts.bylines.length < 50 &&
      this.facts.bylines.at(-1)?.text !== text
    )
      this.facts.bylines.push(this.spot({ raw: '', line: 0, column: 0, text }, el));
  }

  /** Remembers a link, button or field that nothing names. */
  named(
    el: T.Element,
    kind: 'link' | 'button' | 'field',
    inLabel: boolean,
    text = kind === 'field' ? '' : textOf(el),
  ): void {
    const state = accessibleName(el, kind, inLabel, text);
    if (state === 'named' || this.facts.unnamed.length >= 200) return;
    const fact = this.spot({ raw: '', line: 0, column: 0, kind }, el, SHORT_RAW);
    if (state === 'unnamed') this.facts.unnamed.push(fact);
    else this.labels.await(state, fact);
  }
  /** Labels around the element that is read, each by whether it says anything. */
  readonly labelsAround: boolean[] = [];
  get isLabelled(): boolean {
    return this.labelsAround.includes(true);
  }

  anchor(el: T.Element): void {
    const given = attr(el, 'href');
    if (given === undefined) return;
    const text = textOf(el);
    this.named(el, 'link', false, text);
    const href = this.resolve(given.trim()) ?? given;
    const rel = attr(el, 'rel');
    const hash = href.indexOf('#');
    const key = hash < 0 ? href : href.slice(0, hash);
    if (this.anchorsSeen.has(key) || this.full(this.facts.anchors, 'anchors')) return;
    this.anchorsSeen.add(key);
    const anchor: Anchor = {
      raw: '',
      line: 0,
      column: 0,
      href: href.slice(0, 2000),
      text: (foldSpace(text) || foldSpace(namingText(el))).slice(0, 120),
    };
    if (rel) anchor.rel = rel;
    this.facts.anchors.push(this.spot(anchor, el, SHORT_RAW));
  }

  done(): PageFacts {
    const all = this.text.join('');
    const text = foldSpace(all.length > TEXT_CAP * 4 ? all.slice(0, TEXT_CAP * 4) : all);
    this.facts.textLength = text.length;
    this.facts.text = text.length > TEXT_CAP ? text.slice(0, TEXT_CAP) : text;
    this.facts.marks = [...this.marks];
    this.facts.unnamed.push(...this.labels.unnamed());
    const metadata = [
      ...this.facts.titles,
      ...this.facts.metas,
      ...this.facts.links.filter((l) => !l.rel.includes('stylesheet')),
    ];
    if (this.headEndedBy && metadata.some((m) => m.where === 'body'))
      this.facts.headClosedBy = this.spot({ raw: '', line: 0, column: 0 }, this.headEndedBy);
    return this.facts;
  }
}
