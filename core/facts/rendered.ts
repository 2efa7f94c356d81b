/** What a browser saw of pages: evidence like the rest, as plain data. */
import type { PageFacts } from '#core/extract/html';
import type { RenderedFact } from './fact-names';

/** The screens that pages are looked at on, in CSS pixels; the first is the one that texts are read on. */
export const SCREENS = {
  desktop: { width: 1280, height: 800 },
  phone: { width: 390, height: 844 },
} as const;
export type Screen = keyof typeof SCREENS;

/** A picture that is kept beside the evidence, under the digest of its bytes. Sizes in its own pixels. */
export interface KeptPicture {
  sha256: string;
  width: number;
  height: number;
  bytes: number;
}

export interface ScriptError {
  message: string;
  /** The file and line that it names, where it names one. */
  at?: string;
}

export interface FailedRequest {
  url: string;
  type: string;
  status?: number;
  error?: string;
}

/** A cookie without its value. */
export interface SeenCookie {
  name: string;
  domain: string;
  secure: boolean;
  httpOnly: boolean;
  sameSite: string;
  /** Gone when the browser closes. */
  session: boolean;
}

/** What was kept in a page's own storage, by its keys. */
export interface SeenStorage {
  origin: string;
  kind: 'local' | 'session';
  keys: string[];
}

/** A request that counts a visit: stopped before it left. */
export interface MeasuringHit {
  url: string;
  /** The analytics ID that it carries. */
  id?: string;
  /** What it says happened; nothing where it names no event. */
  event?: string;
  /** Sent only once consent had been clicked. */
  afterConsent?: true;
}

/** Everything of one page on one screen. Times in milliseconds, lengths in CSS pixels. */
export interface RenderedView {
  screen: Screen;
  /** Where the browser came to rest. */
  url: string;
  status?: number;
  /** Why there is nothing, or not all of it. */
  failure?: string;
  facts?: PageFacts;
  errors: ScriptError[];
  /** What scripts wrote to the console as an error, without being stopped by it. */
  complaints: string[];
  failed: FailedRequest[];
  /** Hosts beside the page's own, with the number of requests to each. */
  hosts: { host: string; requests: number }[];
  cookies: SeenCookie[];
  storage: SeenStorage[];
  /** By type, as the browser names them. */
  loads: { type: string; requests: number; bytes: number }[];
  hits: MeasuringHit[];
  /** Cookies and storage that were there before the consent click, where one was made. */
  beforeConsent?: { cookies: SeenCookie[]; storage: SeenStorage[] };
  /** The consent click of the brief: done, or nothing like it on the page. */
  consent?: 'clicked' | 'not found';
  firstPaintMs?: number;
  settledMs?: number;
  /** It never came to rest; what is here is what there was when its time was over. */
  restless?: true;
  /** The largest burst of layout shifts (Layout Instability API). */
  layoutShift?: number;
  /** How wide the page lies, how far it can be pushed sideways, and what sticks out. */
  layout?: {
    width: number;
    sideways: number;
    wide: { element: string; right: number }[];
    /** The smallest letters: how many of each size, and where the first of them stand. */
    small: { px: number; letters: number; element: string; text: string }[];
  };
  first?: KeptPicture;
  /** The first screen once more, where it does not look the same after a while. */
  again?: KeptPicture;
  whole?: KeptPicture;
  /** The page is longer than its picture. */
  cut?: true;
  /** The browser gave no window to look at it, when it was asked again later either. */
  noWindow?: true;
}

/** A page on both screens. */
export interface RenderedPage {
  /** The address as the crawl has it. */
  url: string;
  views: RenderedView[];
}

export interface RenderedEvidence {
  /** The browser's own name and version. */
  browser?: string;
  /** Why nothing was rendered. */
  missing?: string;
  pages: RenderedPage[];
  /** Facts that were not collected. */
  lacks?: RenderedFact[];
}

/**
 * Why an audit has not seen its pages in a browser, or not all of them, where that is the browser's doing; undefined
 * where it saw what it was to see.
 */
export function whyNotSeen(rendered: RenderedEvidence | undefined): string | undefined {
  if (!rendered || rendered.missing !== undefined) return rendered?.missing;
  const without = rendered.pages.filter((p) => p.views.some((v) => v.noWindow)).length;
  return without ? `the browser gave no window for ${without} of ${rendered.pages.length} pages` : undefined;
}

/** A view of which nothing is known yet. */
export const blankView = (url: string, screen: Screen): RenderedView => ({
  screen,
  url,
  errors: [],
  complaints: [],
  failed: [],
  hosts: [],
  cookies: [],
  storage: [],
  loads: [],
  hits: [],
});
