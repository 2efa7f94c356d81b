/**
 * A page that answered with HTML that can be judged, and what several checks ask of it, found once when it is
 * first asked for.
 */
import { hostOf, normaliseUrl, splitAddress } from '#core/extract/address';
import type { Anchor, LinkTag, MetaTag, PageFacts, Resource, ScriptTag } from '#core/extract/html';
import { isShell } from '#core/extract/shell';
import { readLinkHeader } from '#core/extract/link-header';
import { headerValues, lastAnswer, type Exchange, type PageEvidence } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { noIndexOf, statementsOf, type Directive, type Statement } from './index-directives';
import { addressesOn, type MailAddress } from './mail-addresses';
import { passed } from '#core/facts/place-result';
import type { PageText } from './page-text';
import { analyticsIdIn, carriesId } from './analytics-ids';
import { webAddress } from './web-address';

/** Where a page says that its canonical address is. */
export interface Canonical extends Pick<LinkTag, 'href' | 'raw' | 'relative'> {
  where: LinkTag['where'] | 'header';
}
/** A link to a web address. */
export interface WebLink {
  url: string;
  host: string;
  anchor: Anchor;
}
/** Something that a page loads from a web address. */
export interface Load {
  url: string;
  host: string;
  resource: Resource;
}

export class ReadPage {
  readonly url: string;
  /** The answer that brought it. */
  readonly answer: Exchange | undefined;
  /** What it tells search engines. */
  readonly statements: readonly Statement[];
  readonly noIndex: readonly Directive[];
  /** What keeps every search engine out, if anything does. */
  readonly keptOut: Directive | undefined;
  readonly shell: boolean;
  /** What names a canonical address: link elements in the order of the source, then Link headers. */
  readonly canonicals: Canonical[] = [];
  /** Link elements that name the page in another language. */
  readonly alternates: LinkTag[] = [];
  /** The first canonical as an absolute address. */
  readonly canonical: string | undefined;
  readonly description: MetaTag | undefined;
  /** Scheme, host and port, with the slash that follows. */
  private readonly origin: string;
  private readonly host: string;
  // set at once, so that all pages have one shape; filled when first asked for
  private knownAddresses: MailAddress[] | undefined = undefined;
  private knownPassed: PlaceResult | undefined = undefined;
  private knownPath: string | undefined = undefined;
  private knownAway: WebLink[] | undefined = undefined;
  private knownGraph: Map<string, MetaTag> | undefined = undefined;
  private knownLoads: Load[] | undefined = undefined;
  private knownMeasuring: { script: ScriptTag; id: string }[] | undefined = undefined;
  private knownCarriers: Map<string, ScriptTag[]> | undefined = undefined;

  constructor(
    readonly evidence: PageEvidence,
    readonly facts: PageFacts,
    readonly words: PageText,
    /** Scripts build it: its facts are those of the page as a browser made it. */
    readonly isRendered = false,
  ) {
    this.url = evidence.url;
    this.origin = this.url.slice(0, this.url.indexOf('/', 8) + 1);
    this.host = hostOf(this.url) ?? '';
    this.answer = lastAnswer(evidence.chain);
    this.statements = statementsOf(evidence);
    this.noIndex = noIndexOf(this.statements);
    this.keptOut = this.noIndex.find((n) => n.agent === '*');
    this.shell = isShell(facts);
    for (const link of facts.links) {
      if (link.rel.includes('canonical')) this.canonicals.push(link);
      if (link.rel.includes('alternate') && link.hreflang) this.alternates.push(link);
    }
    // a relative reference in a header is one to the page's own address
    for (const value of headerValues(this.answer, 'link'))
      for (const { href, rel } of readLinkHeader(value))
        if (rel.includes('canonical'))
          this.canonicals.push({
            href: normaliseUrl(href, this.url) ?? href,
            raw: `Link: ${value.slice(0, 300)}`,
            where: 'header',
          });
    this.canonical = this.canonicals[0] && this.target(this.canonicals[0].href);
    this.description = facts.metas.find((m) => m.name === 'description');
  }

  /** Path of the page's address, as it stands there. */
  get path(): string {
    return (this.knownPath ??= splitAddress(this.url).path);
  }

  /** Mail addresses that the page shows. */
  get mailAddresses(): MailAddress[] {
    return (this.knownAddresses ??= addressesOn(this.facts));
  }

  /** The page as a place that passed, with nothing to add: the same for all checks, so not to be changed. */
  get passed(): PlaceResult {
    return (this.knownPassed ??= Object.freeze(passed(this.url)));
  }

  /**
   * Its first Open Graph meta of a property: in `property`, and in `name` as some write it (common practice:
   * readers accept both).
   */
  openGraph(property: string): MetaTag | undefined {
    if (!this.knownGraph) {
      this.knownGraph = new Map();
      for (const meta of this.facts.metas)
        for (const name of [meta.property, meta.name])
          if (name?.startsWith('og:') && !this.knownGraph.has(name)) this.knownGraph.set(name, meta);
    }
    return this.knownGraph.get(property);
  }

  /** Whether an address that the page's facts name is of its own origin. */
  isOwn(href: string): boolean {
    return href.startsWith(this.origin);
  }

  /** The links that lead to other origins. */
  get linksAway(): WebLink[] {
    if (!this.knownAway) {
      this.knownAway = [];
      for (const anchor of this.facts.anchors) {
        if (this.isOwn(anchor.href)) continue;
        const to = webAddress(anchor.href);
        if (to) this.knownAway.push({ url: to.url, host: to.host, anchor });
      }
    }
    return this.knownAway;
  }

  /**
   * The address that a link of the page leads to, without its fragment; undefined for what is no web address.
   */
  target(href: string): string | undefined {
    // an address of the page's own origin stands in the facts as the URL standard has it
    return this.isOwn(href) && !href.includes('#') ? href : webAddress(href)?.url;
  }

  /** The host of an address that the page's facts name; nothing for what is no web address. */
  hostIn(href: string): string {
    return this.isOwn(href) ? this.host : (webAddress(href)?.host ?? '');
  }

  /** What the page loads. */
  get loads(): Load[] {
    if (!this.knownLoads) {
      this.knownLoads = [];
      for (const resource of this.facts.resources) {
        const { url } = resource;
        if (this.isOwn(url)) {
          this.knownLoads.push({ url: this.target(url)!, host: this.host, resource });
          continue;
        }
        const from = webAddress(url);
        if (from) this.knownLoads.push({ url: from.url, host: from.host, resource });
      }
    }
    return this.knownLoads;
  }

  /** Scripts that carry an analytics ID, each with its first one. */
  get measuring(): { script: ScriptTag; id: string }[] {
    return (this.knownMeasuring ??= this.facts.scripts.flatMap((script) => {
      const id = analyticsIdIn(script);
      return id === undefined ? [] : [{ script, id }];
    }));
  }

  /** Scripts that mention an analytics ID, in their address, their attributes or their text. */
  scriptsWith(id: string): readonly ScriptTag[] {
    this.knownCarriers ??= new Map();
    let found = this.knownCarriers.get(id);
    if (!found) this.knownCarriers.set(id, (found = this.facts.scripts.filter((s) => carriesId(s, id))));
    return found;
  }
}
