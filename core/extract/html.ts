/**
 * HTML bytes' text -> facts about the page, by the HTML standard's own tree construction (parse5). Never
 * throws, never runs anything.
 */
import { html as ns, type DefaultTreeAdapterTypes as T } from 'parse5';
import { foldSpace } from '#core/text/fold';
import { resolveAddress } from './address';
import { attr, parsePlaced, startOf, textOf, type Placed } from './html-tree';
import { accessibleName, LabelBook } from './accessible-name';
import { cssUrls, readCss } from './css';
import { hiddenIn } from './hidden-tags';
import { readJsonLd } from './json-ld';
import type {
  Anchor,
  At,
  FormFacts,
  LinkTag,
  MetaTag,
  PageFacts,
  Resource,
  ScriptTag,
  Spot,
} from './page-facts';

export type * from './page-facts';

const RAW_CAP = 400;
const TEXT_CAP = 12_000;
const LIST_CAP = 3_000;
/** Elements whose text is not shown as the page's. */
const SILENT = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'noframes',
  'iframe',
  'textarea',
  'svg',
  'select',
]);
const BLOCK = new Set([
  'p',
  'div',
  'li',
  'br',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'td',
  'th',
  'tr',
  'section',
  'article',
  'header',
  'footer',
  'nav',
  'main',
  'ul',
  'ol',
  'form',
  'label',
  'option',
  'dt',
  'dd',
  'address',
  'figure',
  'figcaption',
  'blockquote',
  'pre',
  'table',
  'button',
]);
const SHORT_RAW = 200;
const HIDDEN_CAP = 50;
const BYLINE = /(?:^|[\s_-])(?:byline|author|written-by)(?:$|[\s_-])/i;

/** Collects facts while one walk goes over the tree. */
class Collector {
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
    for (const url of cssUrls(text)) this.resource('css', url, el);
    if (!/font/i.test(text)) return;
    const { fontFaces, families } = readCss(text);
    const own = (this.facts.css ??= { fontFaces: [], families: [] });
    own.fontFaces.push(...fontFaces);
    own.families = [...new Set([...own.families, ...families])];
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

  element(el: T.Element, inHead: boolean, kind: Kind | undefined): void {
    const { attrs } = el;
    for (let i = 0; i < attrs.length; i++) {
      const { name, value } = attrs[i]!;
      if (
        name === 'class'
          ? this.classList(value)
          : name === 'id'
            ? this.mark(name, value)
            : (name === 'itemprop' && value === 'author') || (name === 'rel' && /\bauthor\b/i.test(value))
      )
        this.byline(el);
    }
    kind?.read?.(this, el, inHead);
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
    else this.labels.await(state.labelledFrom, fact);
  }
  inLabel = 0;

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
      text: foldSpace(text).slice(0, 120),
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

/**
 * What is to be known of an element by its name. One look-up an element, since comparing fresh strings with
 * thirty names is slow.
 */
interface Kind {
  block?: true;
  silent?: true;
  read?: (c: Collector, el: T.Element, inHead: boolean) => void;
}
const KINDS = new Map<string, Kind>();
const kindOf = (name: string): Kind => KINDS.get(name) ?? (KINDS.set(name, {}), KINDS.get(name)!);
function tells(names: string, read: Kind['read']): void {
  for (const n of names.split(' ')) kindOf(n).read = read;
}
for (const name of SILENT) kindOf(name).silent = true;
for (const name of BLOCK) kindOf(name).block = true;

tells('html', (c, el) => {
  const lang = attr(el, 'lang');
  if (lang !== undefined)
    c.facts.lang = c.at({ raw: '', line: 0, column: 0, where: 'head', value: lang }, el, true);
});
tells('base', (c, el) => {
  const base = attr(el, 'href');
  if (base && c.facts.base === undefined) {
    c.facts.base = resolveAddress(base, c.pageUrl);
    c.resolved.clear();
  }
});
tells('title', (c, el, inHead) => {
  c.facts.titles.push(
    c.at({ raw: '', line: 0, column: 0, where: 'body', text: foldSpace(textOf(el)) }, el, inHead),
  );
});
tells('meta', (c, el, inHead) => {
  if (!c.full(c.facts.metas, 'metas'))
    c.facts.metas.push(
      c.at<MetaTag>(
        {
          raw: '',
          line: 0,
          column: 0,
          where: 'body',
          name: attr(el, 'name')?.toLowerCase(),
          property: attr(el, 'property')?.toLowerCase(),
          httpEquiv: attr(el, 'http-equiv')?.toLowerCase(),
          charset: attr(el, 'charset'),
          content: (attr(el, 'content') ?? '').slice(0, 4000),
        },
        el,
        inHead,
      ),
    );
});
tells('link', (c, el, inHead) => {
  if (c.full(c.facts.links, 'links')) return;
  const rel = (attr(el, 'rel') ?? '').toLowerCase().split(/\s+/).filter(Boolean);
  const given = attr(el, 'href')?.trim();
  const href = given !== undefined ? (c.resolve(given) ?? given) : '';
  const link: LinkTag = {
    raw: '',
    line: 0,
    column: 0,
    where: 'body',
    rel,
    href: href.slice(0, 2000),
    type: attr(el, 'type'),
    sizes: attr(el, 'sizes'),
    hreflang: attr(el, 'hreflang'),
    media: attr(el, 'media'),
  };
  if (given !== undefined && !/^[a-z][a-z0-9+.-]*:/i.test(given)) link.relative = true;
  c.facts.links.push(c.at(link, el, inHead));
  if (rel.includes('stylesheet')) c.resource('style', attr(el, 'href'), el);
});
tells('script', (c, el, inHead) => {
  if (attr(el, 'type')?.toLowerCase().includes('ld+json')) {
    const { line, column } = c.spot({ raw: '', line: 0, column: 0 }, el);
    c.facts.jsonLd.push(readJsonLd(textOf(el), line, column));
    return;
  }
  if (c.full(c.facts.scripts, 'scripts')) return;
  const given = attr(el, 'src');
  const src = given !== undefined ? c.resolve(given.trim()) : undefined;
  const script: ScriptTag = { raw: '', line: 0, column: 0, where: 'body' };
  if (given !== undefined) script.src = src ?? given;
  else script.inline = textOf(el).slice(0, 2000);
  c.facts.scripts.push(c.at(script, el, inHead));
  c.resource('script', given, el);
});
tells('style', (c, el) => {
  c.css(textOf(el), el);
});
tells('h1 h2 h3 h4 h5 h6', (c, el) => {
  if (!c.full(c.facts.headings, 'headings'))
    c.facts.headings.push(
      c.spot(
        {
          raw: '',
          line: 0,
          column: 0,
          level: Number(el.tagName[1]),
          text: foldSpace(textOf(el)).slice(0, 300),
        },
        el,
        SHORT_RAW,
      ),
    );
});
tells('a area', (c, el) => {
  c.anchor(el);
});
tells('img', (c, el) => {
  if (!c.full(c.facts.images, 'images'))
    c.facts.images.push(
      c.spot(
        {
          raw: '',
          line: 0,
          column: 0,
          src: (attr(el, 'src') ?? '').slice(0, 2000),
          alt: attr(el, 'alt') ?? null,
        },
        el,
      ),
    );
  c.resource('img', attr(el, 'src'), el);
  c.srcset(attr(el, 'srcset'), el);
});
tells('source', (c, el) => {
  if (attr(el, 'src')) c.resource('media', attr(el, 'src'), el);
  c.srcset(attr(el, 'srcset'), el);
});
tells('video audio track', (c, el) => {
  c.resource('media', attr(el, 'src'), el);
});
tells('iframe frame', (c, el) => {
  c.resource('frame', attr(el, 'src'), el);
});
tells('object', (c, el) => {
  c.resource('object', attr(el, 'data'), el);
});
tells('embed', (c, el) => {
  c.resource('object', attr(el, 'src'), el);
});
tells('form', (c, el) => {
  if (!c.full(c.facts.forms, 'forms')) {
    c.form = c.spot<FormFacts>(
      {
        raw: '',
        line: 0,
        column: 0,
        action: c.resolve(attr(el, 'action') ?? '') ?? attr(el, 'action') ?? '',
        method: (attr(el, 'method') ?? 'get').toLowerCase(),
        id: attr(el, 'id'),
        fields: [],
      },
      el,
    );
    c.facts.forms.push(c.form);
  }
});
tells('label', (c, el) => {
  c.labels.add(attr(el, 'for'));
});
tells('input textarea select button', (c, el) => {
  c.named(
    el,
    el.tagName === 'button' || /^(submit|reset|button|image)$/i.test(attr(el, 'type') ?? '')
      ? 'button'
      : 'field',
    c.inLabel > 0,
  );
  if (c.form && c.form.fields.length < 200)
    c.form.fields.push({
      name: attr(el, 'name') ?? '',
      type: attr(el, 'type')?.toLowerCase() ?? el.tagName,
      value: attr(el, 'type') === 'hidden' ? attr(el, 'value')?.slice(0, 300) : undefined,
    });
});

/** What stands between a template's tags, up to its end tag. */
function sourceOf(el: T.Element, source: string): string {
  const start = (el as Placed).end + 1;
  const end = source.indexOf('</template', start);
  return source.slice(start, Math.min(end < 0 ? source.length : end, start + 20_000));
}

/**
 * Reads a page.
 * @param source the decoded text of the document
 * @param pageUrl the address it came from, to resolve its links against
 */
export function extractPage(source: string, pageUrl: string): PageFacts {
  const document = parsePlaced(source);
  const collector = new Collector(source, pageUrl);
  const enter: Frame[] = [{ node: document, index: 0, silent: true, inHead: false, block: false }];
  while (enter.length) {
    const frame = enter[enter.length - 1]!;
    const node = frame.node.childNodes[frame.index++];
    if (!node) {
      const closed = enter.pop()!.node as T.Element;
      if (closed.tagName === 'label') collector.inLabel--;
      if (!frame.block) continue;
      if (!frame.silent) collector.gap();
      if (closed.tagName === 'form') collector.form = null;
      continue;
    }
    if (node.nodeName === '#text') {
      if (!frame.silent) collector.addText((node as T.TextNode).value);
      continue;
    }
    if (node.nodeName === '#comment') {
      const { data } = node as T.CommentNode;
      if (data.includes('<')) collector.hide(data, 'comment');
      continue;
    }
    if (!('tagName' in node)) continue;
    const el = node as T.Element;
    const { tagName } = el;
    const kind = KINDS.get(tagName);
    const inHead = frame.inHead || tagName === 'head';
    if (el.namespaceURI === ns.NS.HTML) collector.element(el, inHead, kind);
    if (tagName === 'template' || tagName === 'noscript') {
      collector.hide(tagName === 'template' ? sourceOf(el, source) : textOf(el), tagName, el);
      continue;
    }
    if (tagName === 'body' && startOf(el, source) < 0)
      collector.headEndedBy = el.childNodes.find((n): n is T.Element => 'tagName' in n);
    if (tagName === 'label' && el.childNodes.length) collector.inLabel++;
    const silent = tagName === 'body' ? false : frame.silent || kind?.silent === true;
    const block = kind?.block === true;
    if (!silent && block) collector.gap();
    if (el.childNodes.length) enter.push({ node: el, index: 0, silent, inHead, block });
  }
  return collector.done();
}

/** How far the walk has come within an element. */
interface Frame {
  node: T.ParentNode;
  index: number;
  silent: boolean;
  inHead: boolean;
  block: boolean;
}
