/** One page in a few columns: what a table of all pages shows. */
import type { Severity } from '#core/facts/finding';
import type { DefaultOf } from '#core/checks/kit/default-texts';

/** How a text stands against what a listing holds. */
export type TextFit = 'missing' | 'short' | 'long' | 'fits';

/** Title or description of a page as a listing would carry it. */
export interface LineText {
  text: string;
  /** Characters, and CSS pixels in a face with Arial’s metrics. */
  count: number;
  px: number;
  fit: TextFit;
  /** It stands on another page too, of those that count. */
  shared?: true;
  /** Whose it is, where it is not the page’s own. */
  from?: DefaultOf;
}

export interface PageLine {
  url: string;
  /** The address that was asked for, where redirects led from it. */
  asked?: string;
  status: number | null;
  /** Why there is nothing to read. */
  error?: string;
  /** Why a search engine does not list it; nothing where it may. */
  keptOut?: string;
  title: LineText;
  description: LineText;
  canonical?: string;
  /** The canonical names another page. */
  copyOf?: true;
  language?: string;
  heading?: string;
  /** Address of the share picture. */
  picture?: string;
  words: number;
  /** Of the HTML, as it came over the wire. */
  bytes: number | null;
  /** Milliseconds. */
  firstByte: number | null;
  /** Pages that link to it, and links that it has. */
  linksIn: number;
  linksOut: number;
  /** Links on it that lead to nothing. */
  broken: number;
  /** The fewest links that lead to it from the home page; null where none do. */
  depth: number | null;
  inSitemap: boolean;
  /** No page links to it. */
  orphan?: true;
  /** Checks that fail here, and the gravest of them. */
  faults: number;
  worst?: Severity;
}
