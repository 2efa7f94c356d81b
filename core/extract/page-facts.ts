/** The facts about one page: what its HTML says, each with the place in the source it was read from. */
import type { Selected } from './selected';
import type { CssFacts } from './css';
import type { JsonLdBlock } from './json-ld';

/**
 * A place in the source: the tag as it came (capped), line and column from 1; line 0 where the parser made
 * the element up.
 */
export interface Spot {
  raw: string;
  line: number;
  column: number;
}
/** The same, and in which part of the document the standard's parser put it. */
export interface At extends Spot {
  where: 'head' | 'body';
}

export interface MetaTag extends At {
  name?: string;
  property?: string;
  httpEquiv?: string;
  charset?: string;
  content: string;
}
export interface LinkTag extends At {
  rel: string[];
  href: string;
  relative?: true;
  type?: string;
  sizes?: string;
  hreflang?: string;
  media?: string;
}
export interface ScriptTag extends At {
  src?: string;
  /** Its text, capped. */
  inline?: string;
  /** Words beyond the cap that look like an ID (capped). */
  later?: string[];
  /** A type that browsers do not run (HTML, "JavaScript MIME type essence match" or "module"). */
  inert?: string;
}
export interface Anchor extends Spot {
  href: string;
  text: string;
  rel?: string;
}
export interface ImageTag extends Spot {
  src: string;
  alt: string | null;
}
export interface Heading extends Spot {
  level: number;
  text: string;
}
export interface FormFacts extends Spot {
  action: string;
  method: string;
  id?: string;
  fields: { name: string; type: string; value?: string }[];
  /** Where its buttons send it instead. */
  formActions?: (Spot & { action: string })[];
}
/**
 * Something the page loads by itself. `kind` is the element, `css` for pictures that style elements and
 * attributes load, `other` for preloads, tracks and manifests.
 */
export interface Resource extends Spot {
  kind: 'script' | 'style' | 'frame' | 'img' | 'srcset' | 'media' | 'object' | 'css' | 'font' | 'other';
  url: string;
}
/** Who is said to have written the page: rel=author, itemprop=author, or a class that says so. */
export interface Byline extends Spot {
  text: string;
}
/** A link, button or form field without an accessible name (a placeholder is none). */
export interface Unnamed extends Spot {
  kind: 'link' | 'button' | 'field';
}
/** A tag that looks as if it counted and does not, because of where it stands. */
export interface HiddenTag extends Spot {
  tag: string;
  inside: 'comment' | 'template' | 'noscript';
}

export interface PageFacts {
  lang: (At & { value: string }) | null;
  titles: (At & { text: string })[];
  metas: MetaTag[];
  links: LinkTag[];
  scripts: ScriptTag[];
  base?: string;
  headings: Heading[];
  anchors: Anchor[];
  images: ImageTag[];
  forms: FormFacts[];
  resources: Resource[];
  jsonLd: JsonLdBlock[];
  bylines: Byline[];
  unnamed: Unnamed[];
  hidden: HiddenTag[];
  /** What ended the head before its time, where metadata stand after it. */
  headClosedBy?: Spot;
  /** Fonts of the style elements. */
  css?: Omit<CssFacts, 'urls'>;
  /** Visible text of the body, white space folded, capped. */
  text: string;
  textLength: number;
  /** Text of pre, code, samp and kbd elements, white space folded, capped; nothing in evidence kept before. */
  code?: string;
  /** Elements with an id or class that callers may look a mark up by (capped): `#id` and `.class`. */
  marks: string[];
  /** What was cut because a cap was reached. */
  cut: string[];
  /** Elements that the agency's own checks asked for, by selector. */
  selected?: Record<string, Selected>;
}
