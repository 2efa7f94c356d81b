/** What each element tells about its page. */
import type { DefaultTreeAdapterTypes as T } from 'parse5';
import { foldSpace } from '#core/text/fold';
import { resolveAddress } from '#core/extract/address';
import { attr, textOf } from '#core/extract/html-tree';
import { readJsonLd } from '#core/extract/json-ld';
import type { FormFacts, LinkTag, MetaTag, ScriptTag } from '#core/extract/page-facts';
import { levelOf, type Collector } from './collector';

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
/**
 * What is to be known of an element by its name. One look-up an element, since comparing fresh strings with
 * thirty names is slow.
 */
export interface Kind {
  block?: true;
  silent?: true;
  read?: (c: Collector, el: T.Element, inHead: boolean) => void;
}
/** By the name of the element. */
export const KINDS = new Map<string, Kind>();
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
/**
 * Loads that browsers block rather than upgrade on an https page: all but pictures, sound and film (W3C Mixed
 * Content, level 2).
 */
function isPreload(rel: readonly string[], as: string | undefined): boolean {
  if (rel.includes('modulepreload') || rel.includes('manifest') || rel.includes('prefetch')) return true;
  return rel.includes('preload') && !/^(?:image|audio|video)$/i.test(as ?? '');
}

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
  else if (isPreload(rel, attr(el, 'as'))) c.resource('other', attr(el, 'href'), el);
});
/** Types of scripts that run (HTML, "prepare the script element"; WHATWG MIME Sniffing). */
const RUNS =
  /^(?:module|(?:application|text)\/(?:x-)?(?:java|ecma)script|text\/(?:javascript1\.[0-5]|jscript|livescript))$/;
/** How much of an inline script is kept, and how far the rest is read for IDs. */
const INLINE_CAP = 4000;
const READ_CAP = 400_000;
/** What may be the ID of an account: capitals or digits, with dashes or without (common practice). */
const ID_LIKE = /\b(?:[A-Z]{1,4}-[A-Z0-9][A-Z0-9-]{0,20}|\d{5,20})\b/g;

function readInline(script: ScriptTag, text: string): void {
  script.inline = text.slice(0, INLINE_CAP);
  if (text.length <= INLINE_CAP) return;
  // an ID may be cut by the cap itself
  const rest = text.slice(INLINE_CAP - 24, READ_CAP);
  const later = [...new Set(rest.match(ID_LIKE))].slice(0, 50);
  if (later.length) script.later = later;
}

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
  else readInline(script, textOf(el));
  const type = (attr(el, 'type') ?? '').trim().toLowerCase();
  if (type && !RUNS.test(type)) script.inert = type.slice(0, 60);
  c.facts.scripts.push(c.at(script, el, inHead));
  c.resource('script', given, el);
});
tells('style', (c, el) => {
  c.css(textOf(el), el);
});
tells('h1 h2 h3 h4 h5 h6', (c, el) => {
  const role = attr(el, 'role')?.trim().toLowerCase();
  // a role of its own takes the place of the element's (WAI-ARIA 1.2, 5.3.2)
  if (!role || role === 'heading') c.heading(el, role ? levelOf(el) : Number(el.tagName[1]));
});
tells('pre code samp kbd', (c, el) => {
  c.code(el);
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
tells('video audio', (c, el) => {
  c.resource('media', attr(el, 'src'), el);
});
tells('track', (c, el) => {
  c.resource('other', attr(el, 'src'), el);
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
  c.labels.add(attr(el, 'for'), el);
});
/** Where a button sends its form instead (HTML, formaction). */
function noteFormAction(c: Collector, el: T.Element): void {
  const given = attr(el, 'formaction');
  if (!c.form || given === undefined) return;
  const all = (c.form.formActions ??= []);
  if (all.length < 20)
    all.push(c.spot({ raw: '', line: 0, column: 0, action: c.resolve(given) ?? given }, el));
}

tells('input textarea select button', (c, el) => {
  c.named(
    el,
    el.tagName === 'button' || /^(submit|reset|button|image)$/i.test(attr(el, 'type') ?? '')
      ? 'button'
      : 'field',
    c.isLabelled,
  );
  noteFormAction(c, el);
  if (c.form && c.form.fields.length < 200)
    c.form.fields.push({
      name: attr(el, 'name') ?? '',
      type: attr(el, 'type')?.toLowerCase() ?? el.tagName,
      value: attr(el, 'type') === 'hidden' ? attr(el, 'value')?.slice(0, 300) : undefined,
    });
});
